// Reading, adding and writing back are three steps: two at once count as one.
package main

import (
	"fmt"
	"os"
	"sync"
)

type cargoScale struct {
	weighed int
}

func (s *cargoScale) weigh() {
	s.weighed++
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
	fmt.Println(scale.weighed, "of 800000 weighed")
	if scale.weighed != 800000 {
		os.Exit(1)
	}
}
