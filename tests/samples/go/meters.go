// An object that has started a thread is replaced, and nobody ends it.
package office

import (
	"sync"
	"time"
)

type Meter struct {
	readings int
	done     chan bool
}

func NewMeter() *Meter {
	m := &Meter{done: make(chan bool)}
	go m.read()
	return m
}

func (m *Meter) read() {
	for {
		select {
		case <-m.done:
			return
		case <-time.After(time.Second):
		}
	}
}

func (m *Meter) stop() { close(m.done) }

var current = &Meter{}  // entity: shared-instance current eager language
var checked = &Meter{}  // entity: shared-instance checked eager language

func UseAnother() *Meter {
	current = NewMeter()  // finding: single.replaceable lifetime.never-released
	return current
}

func UseNext() {
	checked.stop()
	checked = NewMeter()  // finding: single.replaceable
}

func Current() *Meter { return current }
func Checked() *Meter { return checked }

type quay struct {
	sync.Mutex
	berths int
	cranes int
}

var north = quay{}  // entity: shared-instance north eager language
var south = quay{}  // entity: shared-instance south eager language

// Both locks are held where one is taken inside the other.
func moveNorth(by int) {
	south.Lock()
	south.cranes -= by
	north.Lock()
	north.cranes += by
	north.Unlock()
	south.Unlock()
}

func lower() {
	north.Lock()
	north.cranes = 0
	north.Unlock()
}

func Watch() {
	go moveNorth(1)
	go lower()
}
