// Guards, starts, lists and ties of a harbour on duty.
package main

import (
	"os"
	"sync"
)

// Guarded when it is written, not when it is read.
type tideBoard struct {
	mu    sync.Mutex
	level int
	notes []string
}

var board = &tideBoard{}  // entity: shared-instance board eager language

func (b *tideBoard) set(level int) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.level = level
}

func (b *tideBoard) read() int {
	return b.level  // finding: thread.mixed-guard
}

func (b *tideBoard) note(text string) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.notes = append(b.notes, text)
}

func (b *tideBoard) clear() {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.notes = nil
}

// The list itself leaves from under its lock.
func (b *tideBoard) all() []string {
	b.mu.Lock()
	defer b.mu.Unlock()
	return b.notes  // finding: thread.leaks-internals
}

// A look and a change, in two steps; near miss: under one lock.
var taken = map[string]string{}  // entity: global-variable taken eager language
var asked = map[string]string{}  // entity: global-variable asked eager language
var askedMu sync.Mutex  // harmless: askedMu

func take(berth, ship string) bool {
	if _, there := taken[berth]; there {  // finding: thread.check-then-act
		return false
	}
	taken[berth] = ship  // finding: thread.unguarded-state
	return true
}

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

// Reads the environment.
type namePlate struct {
	name string
}

var plate = newPlate()  // entity: shared-instance plate eager language

func newPlate() *namePlate {
	return &namePlate{name: os.Getenv("HARBOUR")}  // finding: init.reads-environment
}

func (p *namePlate) rename(name string) {
	p.name = name
}

// Works only after a call, and is used before it; near miss: tests for it.
type chart struct {
	fathoms int
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

func (p *plotter) keep(spare *chart) {
	p.spare = spare
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

// Only ever added to; near miss: begun anew.
var lines []string  // entity: global-variable lines eager language
var recent []string  // entity: global-variable recent eager language

func write(line string) {
	lines = append(lines, line)  // finding: thread.unguarded-state  // finding: lifetime.grows-forever
}

func keep(line string) {
	recent = append(recent, line)
	if len(recent) > 20 {
		recent = nil
	}
}

// Made at load, and nobody uses it.
type lamp struct {
	oil int
}

func newLamp() *lamp {
	return &lamp{oil: 5}
}

var spareLamp = newLamp()  // harmless: spareLamp

// Used after its end; near miss: opened again.
type gauge struct {
	level int
	open  bool
}

var tideGauge = &gauge{}  // entity: shared-instance tideGauge eager language

func (g *gauge) Close() {
	g.open = false
}

func (g *gauge) Open() {
	g.open = true
}

func (g *gauge) Measure() int {
	g.level++
	return g.level
}

func evening() int {
	tideGauge.Close()
	return tideGauge.Measure()  // finding: lifetime.used-after-teardown
}

func morning() int {
	tideGauge.Close()
	tideGauge.Open()
	return tideGauge.Measure()
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

type mate struct {
	store *chartStore
}

func (n *navigator) plot(place string) int { return n.store.depth(place) }

// Near miss: what the other does is never asked for.
type plate struct {
	store *chartStore
}

func newPlate() *plate {
	return &plate{store: &chartStore{}} // near: coupling.fixed-collaborator
}

func newMate(store *chartStore) *mate {
	return &mate{store: store}
}

// Passed through three functions that do nothing with it.
type permit struct {
	number int
}

func (p *permit) valid() bool {
	return p.number > 0
}

func check(p *permit) bool { return p.valid() }
func gate(p *permit) bool  { return check(p) }
func quay(p *permit) bool  { return gate(p) }
func pier(p *permit) bool  { return quay(p) }  // near: coupling.long-handoff

// There is only one office in the harbour.
type Office struct {  // finding: single.meant-single
	opened int
}

func (o *Office) Open() {
	o.opened++
}

func watch() {
	board.set(3)
	board.note("fog")
	board.clear()
	take("north", "Heron")
	leave("north")
	write("fog")
}

func main() {
	go watch()
	watch()
	first := Office{}
	second := &Office{}
	first.Open()
	second.Open()
	pier(&permit{})
	newNavigator()
	newMate(&chartStore{})
	soundings()
}
