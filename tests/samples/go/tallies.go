// A library's object behind a pointer, which looks after itself; and what a function that is only kept needs later.
package tallies

import "example.org/meter"

var calls *meter.Counter  // entity: global-variable calls eager language

func init() {
	calls = &meter.Counter{}
}

type gauge struct {
	line  *hose
	later []func()
}

type hose struct{ drops int }

var mainGauge = &gauge{}  // entity: shared-instance mainGauge eager language

func (g *gauge) fit(line *hose) { // near: init.needs-setup
	if line == nil {
		return
	}
	g.line = line
}

func (g *gauge) plan() {
	g.keep(func() {
		g.line.drops++
	})
}

func (g *gauge) keep(work func()) {
	g.later = append(g.later, work)  // finding: lifetime.grows-forever
}

// Tally resets and reads.
func Tally(many bool) int {
	for i := 0; i < 3; i++ {
		go func() {
			calls.Reset() // near: thread.unguarded-state
		}()
	}
	mainGauge.plan()
	if many {
		mainGauge.fit(&hose{})
	}
	return int(calls.Count())
}
