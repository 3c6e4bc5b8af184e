// Package scale weighs.
package scale

import "fmt"

type cargoScale struct {
	crates []int
	loads  int
}

var scale = &cargoScale{}

func (s *cargoScale) Weigh(crate int) { s.crates = append(s.crates, crate) }

// Clear empties it.
func (s *cargoScale) Clear() {
	s.crates = nil
}

func (s *cargoScale) Show() {
	fmt.Println(len(s.crates))
}

// Unload works with two cranes.
func Unload() {
	go scale.Weigh(3)
	scale.Weigh(4)
	scale.Show()
	scale.Clear()
}
