package main

import (
	"fmt"

	"harbour.example/office/books"
)

// Pilot brings ships in.
type Pilot struct {
	name string // on the roster
}

// MayEnter tells whether there is water enough.
func (p *Pilot) MayEnter(draught, hour int) bool {
	return books.Tides().Level(hour) > draught
}

// Sluice lets water in.
type Sluice struct{}

func (s *Sluice) Open() {
	books.Tides().Raise(1)
	books.Tides().Raise(1)
}

func main() {
	pilot := &Pilot{name: "Wren"}
	fmt.Println(pilot.name, pilot.MayEnter(4, 0))
	(&Sluice{}).Open()
	fmt.Println(pilot.name, pilot.MayEnter(4, 0), books.Tides().Level(1))
}
