// Package desk books berths.
package desk

import "sync"

// berthBook is the one book.
type berthBook struct {
	mu     sync.Mutex
	berths map[string]int
}

var (
	book *berthBook
	once sync.Once
)

// Book hands the book out.
func Book() *berthBook {
	once.Do(func() {
		book = &berthBook{berths: map[string]int{}}
	})
	return book
}

func (b *berthBook) Assign(ship string, berth int) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.berths[ship] = berth
}

func (b *berthBook) Count() int {
	b.mu.Lock()
	defer b.mu.Unlock()
	return len(b.berths)
}

// Arrivals keeps who came.
type Arrivals struct {
	seen int // today
}

// Arrive takes a ship in.
func (a *Arrivals) Arrive(ship string) int {
	a.seen++
	Book().Assign(ship, a.seen)
	return Book().Count()
}

// Departures keeps nothing.
type Departures struct{}

func (Departures) Name() string { return "departures" }

func (d *Departures) Left() int {
	return Book().Count()
}
