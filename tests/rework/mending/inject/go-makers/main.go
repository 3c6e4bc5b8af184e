package main

import "fmt"

// Arrivals keeps who came.
type Arrivals struct {
	seen int // today
}

// Arrive takes a ship in.
func (a *Arrivals) Arrive(ship string) int {
	a.seen++
	Book().Assign(ship, a.seen)
	return Book().Count()
}

// Departures keeps nothing.
type Departures struct{}

// Left tells who is still here.
func (d *Departures) Left() int {
	return Book().Count()
}

// Office makes what it needs.
type Office struct {
	name string
}

// Open lets the first ship in.
func (o *Office) Open() int {
	arrivals := &Arrivals{
		seen: 1,
	}
	return arrivals.Arrive(o.name)
}

// NewDepartures makes a list of those that leave.
func NewDepartures() *Departures {
	return &Departures{}
}

func main() {
	office := &Office{name: "Wren"}
	early := &Arrivals{seen: 3}
	fmt.Println(office.Open(), early.Arrive("Tern"), NewDepartures().Left(), new(Departures).Left())
}
