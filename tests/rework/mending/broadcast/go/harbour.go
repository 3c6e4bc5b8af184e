package main

import "fmt"

type Tides struct{ started int }

var sharedTides = &Tides{}

func theTides() *Tides { return sharedTides }

func (s *Tides) start(day string) {
	s.started++
	fmt.Println("tides", s.started, day)
}

type Berths struct{ started int }

var sharedBerths = &Berths{}

func theBerths() *Berths { return sharedBerths }

func (s *Berths) start(day string) {
	s.started++
	fmt.Println("berths", s.started, day)
}

type Pilots struct{ started int }

var sharedPilots = &Pilots{}

func thePilots() *Pilots { return sharedPilots }

func (s *Pilots) start(day string) {
	s.started++
	fmt.Println("pilots", s.started, day)
}

// open opens the harbour.
func open(day string) {
	theTides().start(day)
	theBerths().start(day)
	thePilots().start("")
}

func main() {
	open("Monday")
}
