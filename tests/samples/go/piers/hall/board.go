package hall

import book "harbour/piers/ledgers"

func (b *Board) Show() {
	b.shown = book.TheFees().Total // finding: coupling.hidden-dependency coupling.layer-breach
}
