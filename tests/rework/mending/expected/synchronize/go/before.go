// Package scale weighs.
package scale

import "fmt"
import "sync"

type cargoScale struct {
	mu sync.Mutex

	crates []int
	loads  int
}

var scale = &cargoScale{}

func (s *cargoScale) Weigh(crate int) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.crates = append(s.crates, crate)
}

// Clear empties it.
func (s *cargoScale) Clear() {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.crates = nil
}

func (s *cargoScale) Show() {
	s.mu.Lock()
	defer s.mu.Unlock()
	fmt.Println(len(s.crates))
}

// Unload works with two cranes.
func Unload() {
	go scale.Weigh(3)
	scale.Weigh(4)
	scale.Show()
	scale.Clear()
}
