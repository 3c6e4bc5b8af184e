// Guards, starts, lists and ties of a harbour on duty.
package main

import (
	"os"
	"sync"
)

// A look and a change, in two steps; near miss: under one lock.
var taken = map[string]string{}  // entity: global-variable taken eager language
var asked = map[string]string{}  // entity: global-variable asked eager language
var askedMu sync.Mutex  // harmless: askedMu

func leave(berth string) {
	delete(taken, berth)
}

func ask(berth, ship string) {
	askedMu.Lock()
	defer askedMu.Unlock()
	if _, there := asked[berth]; !there {
		asked[berth] = ship
	}
}

func answer(berth string) {
	askedMu.Lock()
	defer askedMu.Unlock()
	delete(asked, berth)
}

func (c *chart) depth() int {
	return c.fathoms
}

type plotter struct {
	sheet *chart
	spare *chart
}

var plot = &plotter{}  // entity: shared-instance plot eager language

func (p *plotter) load(sheet *chart) {
	p.sheet = sheet
}

func (p *plotter) depth() int {
	return p.sheet.depth()
}

func (p *plotter) spareDepth() int {
	if p.spare == nil {
		return 0
	}
	return p.spare.depth()
}

func soundings() int {
	depth := plot.depth()  // finding: init.needs-setup
	plot.load(&chart{})
	return depth + plot.spareDepth()
}

// Makes its own helper that reads files; near miss: it is handed in.
type chartStore struct{}

func (s *chartStore) depth(place string) int {
	text, _ := os.ReadFile(place)
	return len(text)
}

type navigator struct {
	store *chartStore
}

func newNavigator() *navigator {
	return &navigator{store: &chartStore{}}  // finding: coupling.fixed-collaborator
}
