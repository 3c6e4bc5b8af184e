// A Once runs its function once: whoever comes second waits.
package main

import (
	"fmt"
	"os"
	"sync"
	"sync/atomic"
	"time"
)

type tideTable struct {
	heights []int
}

var table *tideTable
var making sync.Once
var made int32

func newTideTable() *tideTable {
	time.Sleep(20 * time.Millisecond) // works out the year's tides
	atomic.AddInt32(&made, 1)
	return &tideTable{}
}

// Table hands out the one table.
func Table() *tideTable {
	making.Do(func() {
		table = newTideTable()
	})
	return table
}

func main() {
	var pilots sync.WaitGroup
	for i := 0; i < 4; i++ {
		pilots.Add(1)
		go func() {
			defer pilots.Done()
			Table()
		}()
	}
	pilots.Wait()
	fmt.Println(atomic.LoadInt32(&made), "made")
	if atomic.LoadInt32(&made) != 1 {
		os.Exit(1)
	}
}
