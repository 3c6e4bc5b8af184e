// A lock over the whole change.
package main

import (
	"fmt"
	"os"
	"sync"
)

type cargoScale struct {
	weighing sync.Mutex
	weighed  int
}

func (s *cargoScale) weigh() {
	s.weighing.Lock()
	defer s.weighing.Unlock()
	s.weighed++
}

func (s *cargoScale) total() int {
	s.weighing.Lock()
	defer s.weighing.Unlock()
	return s.weighed
}

var scale = &cargoScale{}

func main() {
	var cranes sync.WaitGroup
	for i := 0; i < 4; i++ {
		cranes.Add(1)
		go func() {
			defer cranes.Done()
			for crate := 0; crate < 200000; crate++ {
				scale.weigh()
			}
		}()
	}
	cranes.Wait()
	fmt.Println(scale.total(), "of 800000 weighed")
	if scale.total() != 800000 {
		os.Exit(1)
	}
}
