// Package ledgers: the dues of the harbour, in a layer of their own.
package ledgers

type HarbourDues struct {
	total int
}

var dues = &HarbourDues{}  // entity: shared-instance dues eager language

func TheDues() *HarbourDues { return dues }

func (d *HarbourDues) Enter(coins int) { d.total = d.total + coins }

func (d *HarbourDues) Clear() { d.total = 0 }

func (d *HarbourDues) Total() int { return d.total }
