package books

import "errors"

var Tickets int  // entity: global-variable Tickets eager language

var names = map[string]string{"A": "anchor"}  // harmless: names

var waiting []string  // entity: global-variable waiting eager language

func Wait(ship string) { waiting = append(waiting, ship) }  // finding: thread.unguarded-state  // finding: lifetime.grows-forever

func init() {
	Tickets = 1
}

var Cranes = map[string]*Table{}  // entity: registry Cranes eager language

func Crane(name string) *Table {
	if Cranes[name] == nil {
		Cranes[name] = &Table{}
	}
	return Cranes[name]
}
