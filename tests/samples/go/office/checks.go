package office

import "sync"

// The lock is the caller's own.
type cargoScale struct {  // entity: singleton cargoScale lazy lock  // finding: single.copyable
	load float64
}

var scale *cargoScale

func Scale() *cargoScale {
	var mu sync.Mutex
	mu.Lock()  // finding: thread.wrong-lock
	defer mu.Unlock()
	if scale == nil {
		scale = &cargoScale{}  // finding: init.lazy-needless
	}
	return scale
}

func (s *cargoScale) Weigh(tons float64) {
	s.load = tons
}

// Tested once only.
type tugList struct {  // entity: singleton tugList lazy double-check-unsound  // finding: single.copyable
	count int
}

var (
	tugs   *tugList
	tugsMu sync.Mutex  // harmless: tugsMu
)

func Tugs() *tugList {
	if tugs == nil {  // finding: thread.double-check-incomplete
		tugsMu.Lock()
		tugs = &tugList{}  // finding: init.lazy-needless
		tugsMu.Unlock()
	}
	return tugs
}

func (t *tugList) Add() {
	t.count++
}

// Nothing before it is opened.
type radarPlot struct {  // entity: singleton radarPlot lazy none  // finding: single.copyable
	echoes int
}

var plot *radarPlot

func OpenPlot() {
	plot = &radarPlot{}
}

func Plot() *radarPlot {
	return plot  // finding: single.may-return-nothing
}

func (p *radarPlot) Echo() {
	p.echoes++
}

// In the order of dependence, whatever the text says.
type tideClock struct {
	offset int
}

var clock = newClock()  // entity: shared-instance clock eager language  // finding: init.eager-unused

var offsets = map[string]int{"north": 2}  // harmless: offsets

func newClock() *tideClock {
	return &tideClock{offset: offsets["north"]}
}

func (c *tideClock) Shift(by int) {
	c.offset = by
}

// Near misses.
type receipt struct {
	number int
}

func NewReceipt() *receipt {
	return &receipt{number: 1}
}

const limit = 12  // harmless: limit
