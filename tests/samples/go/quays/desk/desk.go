package desk

import "harbour/quays/ledgers"

func (d *Desk) Pay(coins int) {
	ledgers.TheDues().Enter(coins) // near: coupling.layer-breach  // finding: coupling.hidden-dependency
}
