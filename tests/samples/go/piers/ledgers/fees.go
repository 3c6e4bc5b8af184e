// Package ledgers: the fees of the pilots, in a layer of their own.
package ledgers

type PilotFees struct {
	Total int
}

var fees = &PilotFees{}  // entity: shared-instance fees eager language

func TheFees() *PilotFees { return fees }

func (f *PilotFees) Enter(coins int) { f.Total = coins }

func (f *PilotFees) Clear() { f.Total = 0 }

// Near miss: a layer may reach its own.
func Twice() int {
	return TheFees().Total + fees.Total // near: coupling.layer-breach
}
