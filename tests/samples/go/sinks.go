package harbour

import (
	"os"
	"sync/atomic"
)

// What is told something through an interface, and asked nothing; a value that is stored and loaded whole.
type Teller interface {
	Tell(words ...interface{})
}

type paper struct{ lines int }

func (p *paper) Tell(words ...interface{}) {
	p.lines++
	os.Stderr.WriteString("told")
}

var errBook = Teller(&paper{}) // entity: shared-instance errBook eager language

func SetTeller(teller Teller) {
	errBook = teller // finding: single.replaceable // near: coupling.hidden-dependency
}

func moorAt(pier string) { errBook.Tell(pier) }
func leaveAt(pier string) { errBook.Tell("left", pier) }
func waitAt(pier string) { errBook.Tell("waits", pier) }

var tide atomic.Value // entity: global-variable tide eager language

func watchTide() {
	go func() {
		tide.Store("low") // near: thread.unguarded-state
	}()
	tide.Store("high")
}
