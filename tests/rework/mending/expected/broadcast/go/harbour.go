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

// StartUp tells those who listen, in the order in which they came, that the program starts.
type StartUp struct {
	listeners []func()
}

func (s *StartUp) add(listener func()) {
	s.listeners = append(s.listeners, listener)
}

func (s *StartUp) announce() {
	for _, listener := range s.listeners {
		listener()
	}
}

// open opens the harbour.
func open(day string) {
	var startUp StartUp
	startUp.add(func() { theTides().start(day) })
	startUp.add(func() { theBerths().start(day) })
	startUp.add(func() { thePilots().start("") })
	startUp.announce()
}

func main() {
	open("Monday")
}
