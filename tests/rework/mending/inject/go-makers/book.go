package main

import "sync"

// BerthBook is the one book.
type BerthBook struct {
	mu     sync.Mutex
	berths map[string]int
}

var (
	book *BerthBook
	once sync.Once
)

// Book hands the book out.
func Book() *BerthBook {
	once.Do(func() {
		book = &BerthBook{berths: map[string]int{}}
	})
	return book
}

// Assign gives a ship its berth.
func (b *BerthBook) Assign(ship string, berth int) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.berths[ship] = berth
}

// Count tells how many berths are taken.
func (b *BerthBook) Count() int {
	b.mu.Lock()
	defer b.mu.Unlock()
	return len(b.berths)
}
