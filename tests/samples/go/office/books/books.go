package books

import "sync"

// Once: sound.
type BerthBook struct {
	mu      sync.Mutex
	berths  map[string]int
	changes int
}

var (
	instance *BerthBook  // entity: shared-instance instance lazy once
	once     sync.Once  // harmless: once
)

func Instance() *BerthBook {
	once.Do(func() {
		instance = &BerthBook{berths: make(map[string]int)}
	})
	return instance
}

func (b *BerthBook) Assign(ship string, berth int) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.berths[ship] = berth  // finding: lifetime.grows-forever
	b.changes++
}

func (b *BerthBook) Changes() int {
	b.mu.Lock()
	defer b.mu.Unlock()
	return b.changes
}

// An unguarded nil check.
type Roster struct{ pilots []string }

var roster *Roster  // entity: shared-instance roster lazy none

func Pilots() *Roster {
	if roster == nil {
		roster = &Roster{}  // finding: thread.unguarded-creation
	}
	return roster
}

func (r *Roster) Add(pilot string) { r.pilots = append(r.pilots, pilot) }  // finding: thread.unguarded-state  // finding: lifetime.grows-forever

// A nil check under a lock.
type Table struct{ level int }

var (
	table   *Table  // entity: shared-instance table lazy lock
	tableMu sync.Mutex  // harmless: tableMu
)

func Tides() *Table {
	tableMu.Lock()
	defer tableMu.Unlock()
	if table == nil {
		table = new(Table)
	}
	return table
}

func (t *Table) Level() int { return t.level }
