// Which two threads meet: what is set before the first is started, what one of them has for itself, and locks wherever they are taken.
package main

import "sync"

var (
	moored    = map[string]string{} // entity: global-variable moored eager language
	mooredMut sync.RWMutex          // harmless: mooredMut
)

// Looked for under one lock and put in under another; what is told between lock and unlock is told after it.
func moor(ship string) {
	mooredMut.RLock()
	_, there := moored[ship] // finding: thread.check-then-act
	mooredMut.RUnlock()
	if there {
		return
	}
	mooredMut.Lock()
	moored[ship] = ship
	mooredMut.Unlock()
}

// Near misses: locks in a case and behind a label.
func unmoor(orders chan string) {
	select {
	case ship := <-orders:
		mooredMut.Lock()
		delete(moored, ship) // near: thread.mixed-guard
		mooredMut.Unlock()
	}
	if len(orders) > 0 {
		goto done
	}
done:
	mooredMut.Lock()
	delete(moored, "") // near: thread.mixed-guard
	mooredMut.Unlock()
}

var tide int                      // entity: global-variable tide eager language
var surge int                     // entity: global-variable surge eager language
var rounds int                    // entity: global-variable rounds eager language
var flags = map[string]int{}      // harmless: flags
var signals = map[string]string{} // entity: global-variable signals eager language

func setTide() { tide = 4 } // near: thread.unguarded-state

func raise() { surge = 2 } // finding: thread.unguarded-state

func fly(flag string, height int) { flags[flag] = height } // near: thread.unguarded-state

func init() {
	fly("yellow", 3)
}

// Near miss: one thread alone counts them, as long as the harbour is open.
func walkRounds() {
	for {
		rounds++ // near: thread.lost-update
	}
}

func watch() int {
	walkRounds()
	return tide + surge + flags["yellow"]
}

// What an interface keeps is the class that is made for it, by a function that another one calls.
type Bell interface{ Toll() }

type bell struct{ rung int }

func (b *bell) Toll() { b.rung++ } // finding: thread.lost-update

func newBell() *bell { return &bell{} }

func NewBell() Bell { return newBell() }

var theBell = NewBell() // entity: shared-instance theBell eager language

func ring() { theBell.Toll() }

func main() {
	setTide()
	go watch()
	raise()
	for i := 0; i < 3; i++ {
		go moor("Gannet")
		go ring()
	}
	go unmoor(make(chan string))
	signals["a"] = "b" // near: thread.unguarded-state
}

// A struct without a name: its members are known, and the lock in it.
var pilots struct { // entity: shared-instance pilots eager language
	sync.Mutex
	last string
}

var tugs struct { // entity: global-variable tugs eager language
	last string
}

func sail(name string) {
	pilots.Lock()
	pilots.last = name // near: thread.unguarded-state
	pilots.Unlock()
	tugs.last = name // finding: thread.unguarded-state
}

func sailTwo() {
	go sail("west")
	go sail("east")
}

// Near misses: set by what a value without a name calls, before init(); a cache of texts, in which two are as good as one.
var bells struct { // harmless: bells
	on bool
}

var _ = ringBells()

func ringBells() bool {
	bells.on = len(signals) == 0 // near: thread.unguarded-state
	return bells.on
}

var (
	names   = map[int]string{} // entity: global-variable names eager language
	namesMu sync.RWMutex       // harmless: namesMu
)

func look(number int) string { return flagOf(number) + "!" }

func nameOf(number int) string {
	if !bells.on {
		return ""
	}
	namesMu.RLock()
	name, ok := names[number] // near: thread.check-then-act
	namesMu.RUnlock()
	if ok {
		return name
	}
	name = look(number)
	namesMu.Lock()
	names[number] = name // near: lifetime.grows-forever
	namesMu.Unlock()
	return name
}

func sailThree() {
	go nameOf(1)
	go nameOf(2)
}

func flagOf(number int) string {
	if number > 2 {
		return "blue"
	}
	return "red"
}
