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

	berthBook *berthBook
}

func (a *Arrivals) theBerthBook() *berthBook {
	if a.berthBook == nil {
		return Book()
	}
	return a.berthBook
}

// Arrive takes a ship in.
func (a *Arrivals) Arrive(ship string) int {
	a.seen++
	a.theBerthBook().Assign(ship, a.seen)
	return a.theBerthBook().Count()
}

// Departures keeps nothing.
type Departures struct {
	berthBook *berthBook
}

func (d *Departures) theBerthBook() *berthBook {
	if d.berthBook == nil {
		return Book()
	}
	return d.berthBook
}

func (Departures) Name() string { return "departures" }

func (d *Departures) Left() int {
	return d.theBerthBook().Count()
}
