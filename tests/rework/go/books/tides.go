// Package books keeps what the office writes down.
package books

import "sync"

// TideTable tells the level at each hour.
type TideTable struct {
	mu     sync.Mutex
	levels []int
}

var (
	table *TideTable
	once  sync.Once
)

// Tides hands out the one table.
func Tides() *TideTable {
	once.Do(func() { table = &TideTable{levels: []int{3, 5, 4}} })
	return table
}

// Level is the level at an hour.
func (t *TideTable) Level(hour int) int {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.levels[hour%len(t.levels)]
}

// Raise raises all levels.
func (t *TideTable) Raise(by int) {
	t.mu.Lock()
	defer t.mu.Unlock()
	for i := range t.levels {
		t.levels[i] += by
	}
}
