// Reading, adding and writing back are three steps: two at once count as one.
package main

import (
	"fmt"
	"os"
	"runtime"
	"sync"
)

type cargoScale struct {
	weighed int
}

func (s *cargoScale) weigh() {
	before := s.weighed
	runtime.Gosched() // the crate swings in
	s.weighed = before + 1
}

var scale = &cargoScale{}

func main() {
	var cranes sync.WaitGroup
	for i := 0; i < 4; i++ {
		cranes.Add(1)
		go func() {
			defer cranes.Done()
			for crate := 0; crate < 20000; crate++ {
				scale.weigh()
			}
		}()
	}
	cranes.Wait()
	fmt.Println(scale.weighed, "of 80000 weighed")
	if scale.weighed != 80000 {
		os.Exit(1)
	}
}
