package books

import "errors"

const Limit = 12  // harmless: Limit

var Tickets int  // entity: global-variable Tickets eager language

var names = map[string]string{"A": "anchor"}  // harmless: names

var waiting []string  // entity: global-variable waiting eager language

var ErrFull = errors.New("the harbour is full")  // harmless: ErrFull

func Wait(ship string) { waiting = append(waiting, ship) }  // finding: thread.unguarded-state  // finding: lifetime.grows-forever

func Name(code string) string { return names[code] }

func init() {
	Tickets = 1
}

type Barge struct{ load int }

func GetInstance() *Barge { return &Barge{} }

var Cranes = map[string]*Table{}  // entity: registry Cranes eager language

func Crane(name string) *Table {
	if Cranes[name] == nil {  // finding: thread.check-then-act
		Cranes[name] = &Table{}
	}
	return Cranes[name]
}
