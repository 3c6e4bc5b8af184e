package main

import "fmt"

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
	tides *TideTable
}

func NewPilot(tides *TideTable) *Pilot {
	return &Pilot{name: "first", tides: tides}
}

func (p *Pilot) MayEnter(draught, day int) bool {
	p.tides.Raise(1)
	return p.tides.Height(day) > draught
}

func deepEnough(tides *TideTable, draught int) bool { return tides.Height(0) > draught }

func main() {
	tides := &TideTable{first: 4}
	fmt.Println(NewPilot(tides).MayEnter(3, 1) && deepEnough(tides, 4))
}
