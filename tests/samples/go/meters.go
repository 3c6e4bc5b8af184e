// An object that has started a thread is replaced, and nobody ends it.
package office

import "time"

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
