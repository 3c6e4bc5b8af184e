package main

import "fmt"

// Arrivals keeps who came.
type Arrivals struct {
	seen int // today

	berthBook *BerthBook
}

// Arrive takes a ship in.
func (a *Arrivals) Arrive(ship string) int {
	a.seen++
	a.berthBook.Assign(ship, a.seen)
	return a.berthBook.Count()
}

// Departures keeps nothing.
type Departures struct {
	berthBook *BerthBook
}

// Left tells who is still here.
func (d *Departures) Left() int {
	return d.berthBook.Count()
}

// Office makes what it needs.
type Office struct {
	name string

	berthBook *BerthBook
}

// Open lets the first ship in.
func (o *Office) Open() int {
	arrivals := &Arrivals{
		seen: 1,
		berthBook: o.berthBook,
	}
	return arrivals.Arrive(o.name)
}

// NewDepartures makes a list of those that leave.
func NewDepartures() *Departures {
	return &Departures{berthBook: Book()}
}

func main() {
	office := &Office{name: "Wren", berthBook: Book()}
	early := &Arrivals{seen: 3, berthBook: Book()}
	fmt.Println(office.Open(), early.Arrive("Tern"), NewDepartures().Left(), (&Departures{berthBook: Book()}).Left())
}
