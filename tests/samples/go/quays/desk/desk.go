package desk

import "harbour/quays/ledgers"

// Near miss: a layer that may.
type Desk struct{}

func (d *Desk) Pay(coins int) {
	ledgers.TheDues().Enter(coins) // near: coupling.layer-breach  // finding: coupling.hidden-dependency
}
