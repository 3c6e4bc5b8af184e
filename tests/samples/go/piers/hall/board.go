package hall

import book "harbour/piers/ledgers"

// A layer that may reach none, by another name.
type Board struct {
	shown int
}

func (b *Board) Show() {
	b.shown = book.TheFees().Total // finding: coupling.layer-breach
}
