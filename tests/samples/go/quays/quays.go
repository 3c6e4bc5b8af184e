// Package quays: what the other folders do not show in Go.
package quays

import (
	"errors"
	"os"
	"sync"

	"harbour/quays/ledgers"
)

// One is handed out, another is made beside it.
type beaconLamp struct {  // entity: singleton beaconLamp eager language  // finding: single.copyable
	flashes int
}

var beacon = &beaconLamp{}

func TheBeacon() *beaconLamp { return beacon }

func (b *beaconLamp) Flash() { b.flashes = 1 }

// Only the first caller's name counts; near miss: kept by name.
type Plate struct {
	name string
}

var (
	plate     *Plate  // entity: shared-instance plate lazy lock
	plateLock sync.Mutex  // harmless: plateLock
	buoys     = map[string]*Plate{}  // entity: registry buoys eager language
)

func ThePlate(name string) *Plate { // finding: init.arguments-ignored
	plateLock.Lock()
	defer plateLock.Unlock()
	if plate == nil {
		plate = &Plate{name: name}
	}
	return plate
}

func TheBuoy(name string) *Plate { // near: init.arguments-ignored
	plateLock.Lock()
	defer plateLock.Unlock()
	if buoys[name] == nil {
		buoys[name] = &Plate{name: name}
	}
	return buoys[name]
}

// Made on first use behind a lock, for nothing.
type bollardPost struct {  // entity: singleton bollardPost lazy lock  // finding: single.copyable
	ropes int
}

var (
	bollard     *bollardPost
	bollardLock sync.Mutex  // harmless: bollardLock
)

func TheBollard() *bollardPost {
	bollardLock.Lock()
	defer bollardLock.Unlock()
	if bollard == nil {
		bollard = &bollardPost{} // finding: init.lazy-needless
	}
	return bollard
}

func (b *bollardPost) Tie() { b.ropes = 1 }

func (d *DutyBook) Enter() { d.entries = 1 }

type SignalMast struct {
	keepers []Keeper
}

var mast = &SignalMast{}  // entity: shared-instance mast eager language

func Mast() *SignalMast { return mast }

func (m *SignalMast) Attach(keeper Keeper) { m.keepers = append(m.keepers, keeper) }

func (m *SignalMast) Detach(keeper Keeper) {
	for i, other := range m.keepers {
		if other == keeper {
			m.keepers = append(m.keepers[:i], m.keepers[i+1:]...)
			return
		}
	}
}

type Lookout struct {
	last int
}

func (l *Lookout) Open() {
	Mast().Attach(l) // finding: coupling.hidden-dependency
}

func (l *Lookout) Close() { l.last = 0 }

func (b *Bosun) Open() {
	Mast().Attach(b) // near: lifetime.dangling-subscriber
}

func (b *Bosun) Close() { Mast().Detach(b) }

func (s *Steward) Close() { Mast().Detach(s) }

// Opens what nothing closes; near miss: closed at its end.
type EchoLog struct {
	file *os.File
}

var echoLog = &EchoLog{}  // entity: shared-instance echoLog eager language

func TheEchoLog() *EchoLog { return echoLog }

func (e *EchoLog) Begin() {
	e.file, _ = os.Open("echoes") // finding: lifetime.never-released
}

type WaveLog struct {
	file *os.File
}

var waveLog = &WaveLog{}  // entity: shared-instance waveLog eager language

func TheWaveLog() *WaveLog { return waveLog }

func (w *WaveLog) Begin() {
	w.file, _ = os.Open("waves") // near: lifetime.never-released
}

func (w *WaveLog) Close() { w.file.Close() }

// Keeps what is made for one visit.
type gateKeeper struct {  // entity: singleton gateKeeper eager language  // finding: single.copyable
	visit *Visit
	last  string
}

var gate = &gateKeeper{}

func TheGate() *gateKeeper { return gate }

func (g *gateKeeper) Begin(visit *Visit) { g.visit = visit }

// Reached from everywhere; near miss: four.
type Siren struct {
	sounded int
}

var siren = &Siren{} // finding: coupling.wide-reach  // entity: shared-instance siren eager language

func TheSiren() *Siren { return siren }

func (s *Siren) Sound() { s.sounded = 1 }

type Bell struct {
	rung int
}

var bell = &Bell{} // near: coupling.wide-reach  // entity: shared-instance bell eager language

func TheBell() *Bell { return bell }

func (b *Bell) Ring() { b.rung = 1 }

type NorthQuay struct{}

func (q *NorthQuay) Fog() {
	TheSiren().Sound()  // finding: coupling.hidden-dependency
	TheBell().Ring()  // finding: coupling.hidden-dependency
}

type SouthQuay struct{}

func (q *SouthQuay) Fog() {
	TheSiren().Sound()
	TheBell().Ring()
}

type EastQuay struct{}

func (q *EastQuay) Fog() {
	TheSiren().Sound()
	TheBell().Ring()
}

func (q *WestQuay) Fog() { TheSiren().Sound() }

func (q *InnerQuay) Fog() { TheSiren().Sound() }

// Starts them all; near miss: only five.
type Opening struct{}

func (o *Opening) Open() { // finding: coupling.crowded-startup
	TheBeacon().Flash()  // finding: coupling.hidden-dependency
	TheSiren().Sound()
	TheBell().Ring()
	TheWaveLog().Begin()  // finding: coupling.hidden-dependency
	TheEchoLog().Begin()  // finding: coupling.hidden-dependency
	TheBollard().Tie()  // finding: coupling.hidden-dependency
	ledgers.TheDues().Enter(1)
}
