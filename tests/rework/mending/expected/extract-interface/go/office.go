package main

import "fmt"

type TideTableInterface interface {
	Height(day int) int
	Raise(by int) (before, after int)
}

// TideTable has the water's height, day by day.
type TideTable struct {
	first int
}

// Height of a day.
func (t *TideTable) Height(day int) int { return t.first + day }

func (t *TideTable) Raise(by int) (before, after int) {
	before = t.first
	t.first += by
	return before, t.first
}

func (t *TideTable) Forget() { t.first = 0 }

type Pilot struct {
	name  string
	tides TideTableInterface
}

func NewPilot(tides TideTableInterface) *Pilot {
	return &Pilot{name: "first", tides: tides}
}

func (p *Pilot) MayEnter(draught, day int) bool {
	p.tides.Raise(1)
	return p.tides.Height(day) > draught
}

func deepEnough(tides TideTableInterface, draught int) bool { return tides.Height(0) > draught }

func main() {
	tides := &TideTable{first: 4}
	fmt.Println(NewPilot(tides).MayEnter(3, 1) && deepEnough(tides, 4))
}
