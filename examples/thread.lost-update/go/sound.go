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
			for crate := 0; crate < 20000; crate++ {
				scale.weigh()
			}
		}()
	}
	cranes.Wait()
	fmt.Println(scale.total(), "of 80000 weighed")
	if scale.total() != 80000 {
		os.Exit(1)
	}
}
