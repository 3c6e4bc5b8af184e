// Package piers: further forms in Go, and near misses beside them.
package piers

import (
	"errors"
	"os"
	"sync"
	"sync/atomic"

	"harbour/piers/ledgers"
)

// There must be only one.
type TideTable struct { // finding: single.meant-single
	shown int
}

func (t *TideTable) Show() { t.shown = 1 }

// Not a singleton: each pier has one.
type Ladder struct { // near: single.meant-single
	rungs int
}

func (l *Ladder) Climb() { l.rungs = 3 }

// There is only one, and nobody outside can make or copy it.
type anchorage struct { // near: single.meant-single single.copyable  // entity: singleton anchorage lazy once
	_     sync.Mutex
	chain int32
	rows  []string
}

var (
	anchor     *anchorage
	anchorOnce sync.Once  // harmless: anchorOnce
)

func makeAnchor() {
	for row := 0; row < 4; row++ {
		anchor.rows = append(anchor.rows, "row")
	}
}

func Anchor() *anchorage { // near: single.may-return-nothing
	anchorOnce.Do(func() {
		anchor = &anchorage{} // near: thread.unguarded-creation single.second-creation init.lazy-needless
		makeAnchor()
	})
	return anchor // near: thread.double-check-incomplete thread.double-check-unsound thread.lock-every-access
}

func (a *anchorage) Lower() {
	atomic.AddInt32(&a.chain, 1) // near: thread.lost-update thread.unguarded-state
}

type Boatswain struct {
	own *anchorage
}

func NewBoatswain(own *anchorage) *Boatswain { // near: coupling.hidden-dependency coupling.fixed-collaborator
	return &Boatswain{own: own}
}

func (b *Boatswain) Moor() {
	b.own.Lower() // near: coupling.hidden-dependency
}

// One is handed out, and another function makes one too.
type capstanDrum struct {  // entity: singleton capstanDrum eager language  // finding: single.copyable
	turns int
}

var capstan = &capstanDrum{}

func Capstan() *capstanDrum { return capstan }

func (c *capstanDrum) Turn() { c.turns = 1 }

func spareCapstan() *capstanDrum {
	return &capstanDrum{} // finding: single.second-creation
}

// Near miss: a test makes its own, and the type makes others of its kind.
type windlassDrum struct { // near: single.copyable
	mu    sync.Mutex
	turns int
}

var windlass = &windlassDrum{}  // entity: shared-instance windlass eager language

func Windlass() *windlassDrum { return windlass }

func (w *windlassDrum) Turned(by int) *windlassDrum {
	w.mu.Lock()
	defer w.mu.Unlock()
	other := &windlassDrum{} // near: single.second-creation
	other.turns = w.turns + by
	return other
}

func (w *windlassDrum) Turn() {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.turns = 1
}

// Hands out what another function fills; near miss: it says so by an error.
type beamLight struct {  // entity: singleton beamLight lazy none  // finding: single.copyable
	lit int
}

var beam *beamLight

func BeginBeam() {
	beam = &beamLight{}
}

func Beam() *beamLight {
	return beam // finding: single.may-return-nothing
}

func (b *beamLight) Light() { b.lit = 1 }

type glowLight struct {  // entity: singleton glowLight lazy none
	mu  sync.Mutex
	lit int
}

var glow *glowLight
var errDark = errors.New("dark")  // harmless: errDark

func BeginGlow() {
	if glow == nil {
		glow = &glowLight{}  // finding: thread.unguarded-creation
	}
}

func Glow() (*glowLight, error) {
	if glow == nil {
		return nil, errDark // near: single.may-return-nothing
	}
	return glow, nil
}

func (g *glowLight) Light() {
	g.mu.Lock()
	defer g.mu.Unlock()
	g.lit = 1
}

// Put in another's place by whoever asks for it; near misses: never set again.
type Flare struct {
	lit int
}

func (f *Flare) Light() { f.lit = 1 }

func NewFlare() *Flare { return &Flare{} }

var flare = NewFlare() // near: init.eager-heavy init.may-throw  // entity: shared-instance flare eager language

func TheFlare() *Flare { return flare }

func UseAnother() {
	flare = NewFlare() // finding: single.replaceable
}

var torch = NewFlare() // near: single.replaceable init.eager-heavy init.eager-unused  // entity: shared-instance torch eager language

func Torch() *Flare { return torch }

var candle = NewFlare() // near: single.replaceable init.eager-unused init.may-throw  // entity: shared-instance candle eager language

func burn() { candle.Light() }

// Made, and used by nobody.
var bench = NewFlare() // finding: init.eager-unused  // entity: shared-instance bench eager language

// A circle of three; near misses: what is called later is no part of the making.
type Crane struct{ load int }
type Winch struct{ rope int }
type Hook struct{ weight int }

var (
	crane     *Crane  // entity: shared-instance crane lazy once
	winch     *Winch  // entity: shared-instance winch lazy once
	hook      *Hook  // entity: shared-instance hook lazy once
	craneOnce sync.Once  // harmless: craneOnce
	winchOnce sync.Once  // harmless: winchOnce
	hookOnce  sync.Once  // harmless: hookOnce
)

func TheCrane() *Crane {
	craneOnce.Do(func() { crane = newCrane() }) // finding: init.cycle
	return crane
}

func TheWinch() *Winch {
	winchOnce.Do(func() { winch = newWinch() })
	return winch
}

func TheHook() *Hook {
	hookOnce.Do(func() { hook = newHook() })
	return hook
}

func newCrane() *Crane { return &Crane{load: TheWinch().rope} }
func newWinch() *Winch { return &Winch{rope: TheHook().weight} }
func newHook() *Hook   { return &Hook{weight: TheCrane().load} }

func (c *Crane) Turn() { c.load = 1 }

type Davit struct{ boats int }
type Tackle struct{ blocks int }

var davit = &Davit{}            // near: init.cycle init.reentrant init.reads-environment  // entity: shared-instance davit eager language
var tackle = &Tackle{blocks: 2} // near: init.cycle init.reentrant init.may-throw  // entity: shared-instance tackle eager language

func (d *Davit) Lower() {
	tackle.Pull() // near: coupling.cycle
	d.boats = 1
}

func (t *Tackle) Pull() { // near: coupling.cycle
	t.blocks = 3
}

func (t *Tackle) Strain(tons int) {
	if tons < 0 {
		panic("tons")
	}
	t.blocks = tons
}

// Each knows the other.
type Ledger struct{ sum int }
type Clerk struct{ stamped int }

var ledger = &Ledger{}  // entity: shared-instance ledger eager language

func (l *Ledger) Book(clerk *Clerk) {
	l.sum = 1
	clerk.Stamp() // finding: coupling.cycle
}

func (c *Clerk) Work()  { c.stamped = ledger.sum }
func (c *Clerk) Stamp() { c.stamped = 0 }
func (c *Clerk) Begin() { ledger.sum = 0 }

// Asks for itself through a helper.
type LogBook struct{ lines int }

var (
	logBook     *LogBook  // entity: shared-instance logBook lazy once
	logBookOnce sync.Once  // harmless: logBookOnce
)

func TheLogBook() *LogBook {
	logBookOnce.Do(func() { logBook = newLogBook() })
	return logBook
}

func newLogBook() *LogBook {
	greet()
	return &LogBook{}
}

func greet() {
	TheLogBook().Write() // finding: init.reentrant
}

func (b *LogBook) Write() { b.lines = 1 }

// Reads the environment while it is made; near misses: asked later.
type Flags struct{ home string }

var flags = newFlags()  // entity: shared-instance flags eager language

func newFlags() *Flags {
	home, _ := os.LookupEnv("HARBOUR") // finding: init.reads-environment
	return &Flags{home: home}
}

func (f *Flags) Reload() {
	f.home = os.Getenv("HARBOUR") // near: init.reads-environment
}

// Ends the program where it stands.
type Scale struct{ tons int }

var scale = newScale() // finding: init.may-throw init.eager-heavy  // entity: shared-instance scale eager language

func newScale() *Scale {
	size, err := os.Stat("scale")
	if err != nil {
		panic("no scale")
	}
	return &Scale{tons: int(size.Size())}
}

func (s *Scale) Load() { s.tons = 2 }

// Works only after it was set up; near misses: it sees to it itself.
type Gauge struct{ level int }

func (g *Gauge) Read() int { return g.level }

type Locks struct {
	gauge *Gauge
	level int
}

type Basin struct {
	gauge *Gauge
	level int
}

var locks = &Locks{}  // entity: shared-instance locks eager language
var basin = &Basin{}  // entity: shared-instance basin eager language

func (l *Locks) SetUp(gauge *Gauge) { l.gauge = gauge }

func (l *Locks) Fill() { l.level = l.gauge.Read() }

func (b *Basin) SetUp(gauge *Gauge) { b.gauge = gauge }

func (b *Basin) Fill() { // near: init.needs-setup
	if b.gauge == nil {
		b.gauge = &Gauge{}
	}
	b.level = b.gauge.Read()
}

func (b *Basin) Empty() { // near: init.needs-setup
	if b.gauge != nil {
		b.level = b.gauge.Read()
	}
}

func flood(deep bool) {
	locks.Fill() // finding: init.needs-setup
	if deep {
		locks.SetUp(&Gauge{})
	}
	basin.SetUp(&Gauge{})
	basin.Fill()
	basin.Empty()
}

// Tested before the lock only.
type shutterBoard struct {  // entity: singleton shutterBoard lazy double-check-unsound  // finding: single.copyable
	closed int
}

var (
	shutters     *shutterBoard
	shuttersLock sync.Mutex  // harmless: shuttersLock
)

func Shutters() *shutterBoard {
	if shutters == nil { // finding: thread.double-check-incomplete
		shuttersLock.Lock()
		shutters = &shutterBoard{}  // finding: init.lazy-needless
		shuttersLock.Unlock()
	}
	return shutters
}

func (s *shutterBoard) Close() { s.closed = 1 }  // finding: thread.unguarded-state

// A lock in each call; near misses: one for all.
type fuseBox struct {  // entity: singleton fuseBox lazy lock  // finding: single.copyable
	burnt int
}

var fuse *fuseBox

func Fuse() *fuseBox {
	var lock sync.Mutex
	lock.Lock() // finding: thread.wrong-lock
	defer lock.Unlock()
	if fuse == nil {
		fuse = &fuseBox{}  // finding: init.lazy-needless
	}
	return fuse
}

func (f *fuseBox) Burn() { f.burnt = 1 }  // finding: thread.unguarded-state

func coil(of int) []string {
	var out []string
	for row := 0; row < of; row++ {
		out = append(out, "coil")
	}
	return out
}

type ropeStore struct {  // entity: singleton ropeStore lazy lock
	mu    sync.Mutex
	coils []string
}

var (
	ropes     *ropeStore
	ropesLock sync.Mutex  // harmless: ropesLock
)

// A lock for each look, in a loop.
func Ropes() *ropeStore {
	ropesLock.Lock() // finding: thread.lock-every-access
	defer ropesLock.Unlock()
	if ropes == nil { // near: thread.double-check-incomplete
		ropes = &ropeStore{coils: coil(4)} // near: init.lazy-needless
	}
	return ropes
}

func (r *ropeStore) Cut() {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.coils = r.coils[1:] // near: thread.mixed-guard thread.check-then-act
}

func (r *ropeStore) All() []string {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.coils // finding: thread.leaks-internals
}

func (r *ropeStore) Copied() []string {
	r.mu.Lock()
	defer r.mu.Unlock()
	return append([]string(nil), r.coils...) // near: thread.leaks-internals
}

func (r *ropeStore) Count() int {
	r.mu.Lock()
	defer r.mu.Unlock()
	return len(r.coils) // near: thread.leaks-internals
}

type chainStore struct {  // entity: singleton chainStore lazy lock
	mu    sync.Mutex
	links []string
}

var (
	chains     *chainStore
	chainsLock sync.Mutex  // harmless: chainsLock
)

func Chains() *chainStore {
	chainsLock.Lock() // near: thread.wrong-lock thread.lock-every-access
	defer chainsLock.Unlock()
	if chains == nil {
		chains = &chainStore{links: coil(9)} // near: thread.unguarded-creation
	}
	return chains
}

func (c *chainStore) Cut() {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.links = c.links[1:]
}

type wireStore struct {  // entity: singleton wireStore lazy lock
	mu     sync.Mutex
	strand int
}

var (
	wires     *wireStore
	wiresLock sync.Mutex  // harmless: wiresLock
)

func Wires() *wireStore {
	wiresLock.Lock() // near: thread.wrong-lock
	if wires == nil {
		made := &wireStore{}  // finding: init.lazy-needless
		made.strand = 4 // near: thread.mixed-guard
		wires = made
	}
	wiresLock.Unlock()
	return wires
}

func (w *wireStore) Bend() {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.strand = 5
}

func week() {
	for day := 0; day < 7; day++ {
		Ropes().Cut()
	}
	store := Chains()
	for day := 0; day < 7; day++ {
		store.Cut()
	}
}

// Fields that two threads set; near misses: under a lock, or handed through a channel.
type Signals struct {
	mu    sync.Mutex
	shown string
	last  string
	kept  []string
	sent  chan string
}

var signals = &Signals{sent: make(chan string, 1)}  // entity: shared-instance signals eager language

func (s *Signals) Show(flag string) {
	s.shown = flag // finding: thread.unguarded-state
}

func (s *Signals) Shown() string { return s.shown }

func (s *Signals) Keep(flag string) {
	s.mu.Lock()
	s.last = flag // near: thread.unguarded-state
	s.kept = append(s.kept, flag)
	s.mu.Unlock()
	s.sent <- flag // near: thread.unguarded-state
}

func (s *Signals) Forget() {
	s.kept = nil // finding: thread.mixed-guard
}

func (s *Signals) Last() string {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.last // near: thread.mixed-guard
}

// A look and a change without a lock; near miss: under one.
var slips = map[string]string{}  // entity: global-variable slips eager language
var passes = map[string]string{}  // entity: global-variable passes eager language
var passesLock sync.Mutex  // harmless: passesLock

func takeSlip(name string) {
	if slips[name] == "" { // finding: thread.check-then-act
		slips[name] = name  // finding: thread.unguarded-state
	}
}

func freeSlip(name string) { delete(slips, name) }

func takePass(name string) {
	passesLock.Lock()
	defer passesLock.Unlock()
	if passes[name] == "" { // near: thread.check-then-act
		passes[name] = name // near: lifetime.grows-forever
	}
}

func freePass(name string) {
	passesLock.Lock()
	defer passesLock.Unlock()
	delete(passes, name)
}

// Opens what nothing closes; near misses: closed in the same function.
type Soundings struct {
	file *os.File
	read int
}

var soundings = &Soundings{}  // entity: shared-instance soundings eager language

func (s *Soundings) Open(name string) {
	s.file, _ = os.Open(name) // finding: lifetime.never-released
}

func (s *Soundings) Next() {
	if s.file != nil {
		s.read = 1
	}
}

func first(name string) int {
	file, err := os.Open(name) // near: lifetime.never-released
	if err != nil {
		return 0
	}
	defer file.Close()
	return 1
}

// Registers again and again, and never leaves; near misses: looks first, and leaves.
type Listening interface{ Heard(what string) }

type Crier struct {
	listening []Listening
	named     map[string]Listening
	calls     []string
}

var crier = &Crier{named: map[string]Listening{}}  // entity: registry crier eager language

func (c *Crier) Attach(one Listening) {
	c.listening = append(c.listening, one)
}

func (c *Crier) Detach(one Listening) {
	for i, other := range c.listening {
		if other == one {
			c.listening = append(c.listening[:i], c.listening[i+1:]...)
			return
		}
	}
}

func (c *Crier) AttachAs(name string, one Listening) {
	c.named[name] = one // near: lifetime.duplicate-subscription
}

func (c *Crier) DetachAs(name string) { delete(c.named, name) }

func (c *Crier) Cry(what string) {
	c.calls = append(c.calls, what) // near: lifetime.grows-forever
	if len(c.calls) > 9 {
		c.calls = c.calls[1:]
	}
	for _, one := range c.listening {
		one.Heard(what)
	}
}

type Drummer struct{ beats int }

func NewDrummer() *Drummer {
	d := &Drummer{}
	d.Begin()
	return d
}

func (d *Drummer) Begin() {
	crier.Attach(d) // finding: lifetime.dangling-subscriber
}

func (d *Drummer) Heard(what string) { d.beats = len(what) }

func (d *Drummer) Close() { d.beats = 0 }

type Piper struct{ notes int }

func (p *Piper) Begin() {
	crier.Attach(p) // near: lifetime.dangling-subscriber
}

func (p *Piper) Twice() {
	crier.Attach(p)
	crier.Attach(p) // finding: lifetime.duplicate-subscription
}

func (p *Piper) Heard(what string) { p.notes = len(what) }

func (p *Piper) Close() { crier.Detach(p) }

type Harper struct{ strings int }

func (h *Harper) Begin() {
	crier.AttachAs("harper", h) // near: lifetime.duplicate-subscription
}

func (h *Harper) Again() {
	crier.AttachAs("harper", h)
}

func (h *Harper) Heard(what string) { h.strings = len(what) }

func (h *Harper) Close() { crier.DetachAs("harper") }

// Keeps the caller's object; near misses: only what it says.
type Caller struct{ ship string }

type Porter struct {
	caller *Caller
	last   string
}

var porter = &Porter{}  // entity: shared-instance porter eager language

func (p *Porter) Keep(caller *Caller) { p.caller = caller }

func (p *Porter) Note(caller *Caller) { p.last = caller.ship }

func (c *Caller) Enter() {
	porter.Keep(c) // finding: lifetime.captured-short-lived
}

func (c *Caller) PassBy() {
	porter.Note(c) // near: lifetime.captured-short-lived
}

func receive(ship string) {
	caller := &Caller{ship: ship}
	caller.Enter()
	caller.PassBy()
}

// Used after its end; near misses: opened again, or used before.
type Sluice struct {
	open  bool
	level int
}

var sluice = &Sluice{open: true}  // entity: shared-instance sluice eager language

func (s *Sluice) Close() { s.open = false }
func (s *Sluice) Open()  { s.open = true }
func (s *Sluice) Measure() int {
	s.level = 1
	return s.level
}

func night() int {
	sluice.Close()
	burn()
	return sluice.Measure() // finding: lifetime.used-after-teardown
}

func day() int {
	sluice.Close()
	sluice.Open()
	level := sluice.Measure()        // near: lifetime.used-after-teardown
	level = level + sluice.Measure() // near: lifetime.used-after-teardown
	sluice.Close()
	return level
}

// The office's papers, passed on by four; near misses: used on the way, or fetched there.
type Papers struct{ number int }

var officePapers = &Papers{}  // entity: shared-instance officePapers eager language

func (p *Papers) Renumber() { p.number++ }

func (p *Papers) InOrder() bool { return p.number > 0 }

func stamp(papers *Papers) bool    { return papers.InOrder() }
func clerk(papers *Papers) bool    { return stamp(papers) }
func counter(papers *Papers) bool  { return clerk(papers) }
func entrance(papers *Papers) bool { return counter(papers) }
func door(papers *Papers) bool     { return entrance(papers) }                    // finding: coupling.long-handoff
func gate(papers *Papers) bool     { return papers.InOrder() && counter(papers) } // near: coupling.long-handoff
func anew()                        { officePapers.Renumber() }
func window() bool                 { return counter(officePapers) }               // near: coupling.long-handoff

// One reached through another; near misses: a part of the object, and the other one asked directly.
type Buoys struct{ lit int }

var buoys = &Buoys{}  // entity: shared-instance buoys eager language

func TheBuoys() *Buoys { return buoys }

func (b *Buoys) Light() { b.lit = 1 }

type Depths struct{ least int }

func (d *Depths) Measure() { d.least = 4 }

type Channel struct {
	depths Depths
	marks  int
}

func (c *Channel) Mark() { c.marks = 1 }

var channel = &Channel{}  // entity: shared-instance channel eager language

func TheChannel() *Channel { return channel }

func (c *Channel) Capstan() *capstanDrum { return Capstan() }

func (c *Channel) Depths() *Depths { return &c.depths }

type Pilot struct{}

func (p *Pilot) Steer() {
	TheChannel().Capstan().Turn()   // finding: coupling.chained-access  // near: coupling.hidden-dependency
	TheChannel().Depths().Measure() // near: coupling.chained-access
}

func (p *Pilot) Dark() {
	TheBuoys().Light() // near: coupling.chained-access
}

// Makes its own; near misses: handed in, or a plain value.
type Echo struct{ heard int }

func (e *Echo) Read() int {
	text, _ := os.ReadFile("echo")
	return len(text)
}

type Inspector struct {
	echo  *Echo
	notes []string
}

func NewInspector(echo *Echo) *Inspector { // near: coupling.fixed-collaborator
	return &Inspector{echo: echo, notes: []string{}}
}

// Reached from seven places; near miss: two.
type Gong struct{ struck int }

var gong = &Gong{}    // finding: coupling.wide-reach  // entity: shared-instance gong eager language
var whistle = &Gong{} // near: coupling.wide-reach  // entity: shared-instance whistle eager language

func (g *Gong) Strike() { g.struck = 1 }

type Pier1 struct{}
type Pier2 struct{}
type Pier3 struct{}
type Pier4 struct{}
type Pier5 struct{}

func (p *Pier1) Fog() {
	gong.Strike()
	whistle.Strike()  // finding: coupling.hidden-dependency
}

func (p *Pier2) Fog() {
	gong.Strike()
	whistle.Strike()
}

func (p *Pier3) Fog() { gong.Strike() }
func (p *Pier4) Fog() { gong.Strike() }
func (p *Pier5) Fog() { gong.Strike() }

// Begins the day for all; near miss: what is handed in is no reach.
type Morning struct{}

func (m *Morning) Begin() { // finding: coupling.crowded-startup
	gong.Strike()
	whistle.Strike()
	buoys.Light()
	soundings.Open("morning")
	davit.Lower()
	flags.Reload()
	scale.Load() // near: coupling.hidden-dependency
}

func (m *Morning) Half(bell *Gong, light *Buoys, line *Soundings, boat *Davit, flag *Flags, load *Scale) { // near: coupling.crowded-startup
	bell.Strike()
	light.Light()
	line.Open("half")
	boat.Lower()
	flag.Reload()
	load.Load()
}

// Only the first one's name counts; near miss: it counts each time.
type Plate struct{ name string }

var (
	plate     *Plate  // entity: shared-instance plate lazy lock
	plateLock sync.Mutex  // harmless: plateLock
	sign      *Plate  // entity: shared-instance sign lazy lock
	signLock  sync.Mutex  // harmless: signLock
)

func ThePlate(name string, size int) *Plate { // finding: init.arguments-ignored
	plateLock.Lock()
	defer plateLock.Unlock()
	if plate == nil {
		plate = &Plate{name: name}
	}
	return plate
}

func TheSign(name string) *Plate { // near: init.arguments-ignored
	signLock.Lock()
	defer signLock.Unlock()
	if sign == nil {
		sign = &Plate{name: name}
	}
	sign.Rename(name)
	return sign
}

func (p *Plate) Rename(name string) { p.name = name }

func open() {  // finding: coupling.crowded-startup
	spareCapstan().Turn()
	Capstan().Turn()
	TheFlare().Light()
	UseAnother()
	ThePlate("a", 1).Rename("b")
	ThePlate("c", 2)
	TheSign("a")
	NewBoatswain(Anchor()).Moor()
	NewDrummer()
	receive("Heron")
	new(Morning).Begin()
	ledgers.TheFees().Enter(2)
	flood(true)
	go signals.Show("A")
	go signals.Keep(signals.Shown())
	go signals.Forget()
	go week()
	go Shutters().Close()
	go Fuse().Burn()
	go freeSlip("a")
	go freePass("a")
	go Windlass().Turn()
	takeSlip("a")
	takePass("a")
	signals.Show("B")
}
