package hall

import "harbour/quays/ledgers"

// A layer that may reach none.
type Hall struct{}

func (h *Hall) Show() int {
	return ledgers.TheDues().Total() // finding: coupling.layer-breach
}
