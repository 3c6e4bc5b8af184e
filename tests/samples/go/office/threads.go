package office

import (
	"sync"
	"sync/atomic"
)

// Counted by two goroutines.
var ships int  // entity: global-variable ships eager language
var boats int64  // entity: global-variable boats eager language
var tallyMu sync.Mutex  // harmless: tallyMu
var names []string  // entity: global-variable names eager language

func Arrive(name string) {
	ships++  // finding: thread.lost-update
	atomic.AddInt64(&boats, 1)
	tallyMu.Lock()
	names = append(names, name)  // finding: lifetime.grows-forever
	tallyMu.Unlock()
}

func Watch() {
	go Arrive("north")
	Arrive("south")
}
