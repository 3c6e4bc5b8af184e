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

type Pier struct{}

func (p *Pier) Light() {
	second := &beaconLamp{} // finding: single.second-creation
	second.Flash()
}

// Another takes its place.
type Horn interface{ Blow() }

type Foghorn struct {
	blown int
}

func (f *Foghorn) Blow() { f.blown = 1 }

var horn = &Foghorn{}  // entity: shared-instance horn eager language

func TheHorn() *Foghorn { return horn }

func ReplaceHorn(other *Foghorn) {
	horn = other // finding: single.replaceable
}

func makeItLoud(other *Foghorn) { ReplaceHorn(other) }

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

func (p *Plate) Rename(name string) { p.name = name }

// Reads a file at load.
type TideFile struct {
	rows []byte
}

func readTides() *TideFile {
	rows, _ := os.ReadFile("tides")
	return &TideFile{rows: rows}
}

var tides = readTides()  // entity: shared-instance tides eager language // finding: init.eager-heavy

func Tides() *TideFile { return tides }

func (t *TideFile) Drop() { t.rows = nil }

// Made on first use behind a lock, for nothing.
type bollardPost struct {  // entity: singleton bollardPost lazy lock  // finding: single.copyable
	ropes int
}

var (
	bollard     *bollardPost
	bollardLock sync.Mutex  // harmless: bollardLock
)

func TheBollard() *bollardPost {
	bollardLock.Lock() // finding: thread.lock-every-access
	defer bollardLock.Unlock()
	if bollard == nil {
		bollard = &bollardPost{} // finding: init.lazy-needless
	}
	return bollard
}

func (b *bollardPost) Tie() { b.ropes = 1 }

func month() {
	for day := 0; day < 30; day++ {
		TheBollard().Tie()
	}
}

// Each needs the other while it is made.
type Light struct {
	height int
}

type Mole struct {
	length int
}

var (
	light     *Light  // entity: shared-instance light lazy once
	mole      *Mole  // entity: shared-instance mole lazy once
	lightOnce sync.Once  // harmless: lightOnce
	moleOnce  sync.Once  // harmless: moleOnce
)

func newLight() *Light { return &Light{height: TheMole().length} }

func newMole() *Mole { return &Mole{length: TheLight().height} }

func TheLight() *Light {
	lightOnce.Do(func() {
		light = newLight() // finding: init.cycle
	})
	return light
}

func TheMole() *Mole {
	moleOnce.Do(func() {
		mole = newMole()
	})
	return mole
}

func (l *Light) Raise() { l.height = 1 }

func (m *Mole) Lengthen() { m.length = 1 }

// Asks for itself.
type DutyBook struct {
	entries int
}

var (
	book     *DutyBook  // entity: shared-instance book lazy once
	bookOnce sync.Once  // harmless: bookOnce
)

func newBook() *DutyBook {
	TheBook().Enter() // finding: init.reentrant
	return &DutyBook{}
}

func TheBook() *DutyBook {
	bookOnce.Do(func() {
		book = newBook()
	})
	return book
}

func (d *DutyBook) Enter() { d.entries = 1 }

// Ends the program while it is made.
type TideTable struct {
	rows int
}

func newTable() *TideTable {
	if _, err := os.ReadFile("rows"); err != nil {
		panic(errors.New("no tides"))
	}
	return &TideTable{}
}

var table = newTable()  // entity: shared-instance table eager language // finding: init.may-throw init.eager-heavy

func Table() *TideTable { return table }

func (t *TideTable) Next() { t.rows = 1 }

// The slot is read outside the lock; near miss: by Once.
type Radar struct {
	sweeps int
}

var (
	radar     *Radar  // entity: shared-instance radar lazy double-check-unsound
	radarLock sync.Mutex  // harmless: radarLock
)

func TheRadar() *Radar {
	if radar == nil { // finding: thread.double-check-unsound
		radarLock.Lock()
		defer radarLock.Unlock()
		if radar == nil {
			radar = &Radar{}
		}
	}
	return radar
}

func (r *Radar) Sweep() { r.sweeps = 1 }

// Who is listed is told of each signal.
type Keeper interface{ Heard(signal int) }

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

func (m *SignalMast) Raise(signal int) {
	for _, keeper := range m.keepers {
		keeper.Heard(signal)
	}
}

type Lookout struct {
	last int
}

func (l *Lookout) Open() {
	Mast().Attach(l) // finding: lifetime.dangling-subscriber
}

func (l *Lookout) Heard(signal int) { l.last = signal }

func (l *Lookout) Close() { l.last = 0 }

// Near miss: taken out at its end.
type Bosun struct {
	last int
}

func (b *Bosun) Open() {
	Mast().Attach(b) // near: lifetime.dangling-subscriber
}

func (b *Bosun) Heard(signal int) { b.last = signal }

func (b *Bosun) Close() { Mast().Detach(b) }

// Listed once for each turn.
type Steward struct {
	last int
}

func (s *Steward) Wake() {
	for turn := 0; turn < 3; turn++ {
		Mast().Attach(s) // finding: lifetime.duplicate-subscription
	}
}

func (s *Steward) Heard(signal int) { s.last = signal }

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

func (g *gateKeeper) Note(ship string) { g.last = ship }

type Visit struct {
	ship string
}

func greet(ship string) {
	visit := &Visit{ship: ship}
	TheGate().Begin(visit) // finding: lifetime.captured-short-lived
	TheGate().Note(ship)   // near: lifetime.captured-short-lived
}

// Knows who uses it.
type Plan struct {
	berths int
}

var plan = &Plan{}  // entity: shared-instance plan eager language

func ThePlan() *Plan { return plan }

func (p *Plan) Change(berther *Berther) {
	p.berths = 1
	berther.Stop() // finding: coupling.cycle
}

type Berther struct {
	free int
}

func (b *Berther) Arrive() { b.free = ThePlan().berths }

func (b *Berther) Stop() { b.free = 0 }

// Makes its own helper that reads files; near miss: it is handed in.
type ChartStore struct{}

func (c *ChartStore) Depth(place string) int {
	chart, _ := os.ReadFile(place)
	return len(chart)
}

type Navigator struct {
	store *ChartStore
}

func NewNavigator() *Navigator {
	return &Navigator{store: &ChartStore{}} // finding: coupling.fixed-collaborator
}

func (n *Navigator) Depth() int { return n.store.Depth("roads") }

type Mate struct {
	store *ChartStore
}

func NewMate(store *ChartStore) *Mate {
	return &Mate{store: store} // near: coupling.fixed-collaborator
}

func (m *Mate) Depth() int { return m.store.Depth("bay") }

// One object reached through another.
type Buoyage struct {
	laid int
}

var buoyage = &Buoyage{}  // entity: shared-instance buoyage eager language

func TheBuoyage() *Buoyage { return buoyage }

func (b *Buoyage) Lay() { b.laid = 1 }

type Fairway struct {
	depth int
}

var fairway = &Fairway{}  // entity: shared-instance fairway eager language

func TheFairway() *Fairway { return fairway }

func (f *Fairway) Marks() *Buoyage { return TheBuoyage() }

func (f *Fairway) Dredge() { f.depth = 1 }

type Tender struct{}

func (t *Tender) Work() {
	TheFairway().Marks().Lay() // finding: coupling.chained-access
	TheFairway().Dredge()      // near: coupling.chained-access
}

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
	TheSiren().Sound()
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

type WestQuay struct{}

func (q *WestQuay) Fog() { TheSiren().Sound() }

type InnerQuay struct{}

func (q *InnerQuay) Fog() { TheSiren().Sound() }

// Starts them all; near miss: only five.
type Opening struct{}

func (o *Opening) Open() { // finding: coupling.crowded-startup
	TheBeacon().Flash()  // finding: coupling.hidden-dependency
	TheSiren().Sound()
	TheBell().Ring()
	TheWaveLog().Begin()
	TheEchoLog().Begin()
	TheBollard().Tie()  // near: coupling.hidden-dependency
	ledgers.TheDues().Enter(1)
}

func (o *Opening) Half() { // near: coupling.crowded-startup
	TheBeacon().Flash()
	TheSiren().Sound()
	ThePlate("north").Rename("N")
	ThePlate("south").Rename("S")
	TheBuoy("one").Rename("1")
}

func (p *Pier) Write() { ledgers.Buffers.Give(ledgers.Buffers.Take()) } // near: coupling.hidden-dependency
func (p *Pier) Print() { ledgers.Buffers.Give(ledgers.Buffers.Take()) } // near: coupling.hidden-dependency
