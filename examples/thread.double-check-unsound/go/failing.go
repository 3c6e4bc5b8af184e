// The test outside of the lock reads a plain pointer while another goroutine sets it.
package main

import (
	"fmt"
	"sync"
)

type signalMast struct {
	flags int
}

var mast *signalMast
var making sync.Mutex

// Mast hands out the one mast.
func Mast() *signalMast {
	if mast == nil {
		making.Lock()
		defer making.Unlock()
		if mast == nil {
			mast = &signalMast{flags: 3}
		}
	}
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
