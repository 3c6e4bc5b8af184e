// The one that makes it is known to all who come later.
package main

import (
	"fmt"
	"sync"
)

type signalMast struct {
	flags int
}

var mast *signalMast
var making sync.Once

// Mast hands out the one mast.
func Mast() *signalMast {
	making.Do(func() {
		mast = &signalMast{flags: 3}
	})
	return mast
}

func main() {
	var pilots sync.WaitGroup
	for i := 0; i < 4; i++ {
		pilots.Add(1)
		go func() {
			defer pilots.Done()
			fmt.Println(Mast().flags, "flags")
		}()
	}
	pilots.Wait()
}
