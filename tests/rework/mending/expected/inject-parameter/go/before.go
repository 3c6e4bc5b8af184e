package main

import "fmt"

type TideTable struct {
	level int
}

var table = &TideTable{level: 3}

func theTable() *TideTable {
	return table
}

func (t *TideTable) raise(by int) {
	t.level += by
}

// mayEnter tells whether there is water enough.
func mayEnter(draught int) bool {
	return mayEnterWith(draught, theTable())
}

func mayEnterWith(draught int, tideTable *TideTable) bool {
	return tideTable.level > draught
}

func levels(days, by int) (first int, last int) {
	return levelsWith(days, by, theTable())
}

func levelsWith(days, by int, tideTable *TideTable) (first int, last int) {
	first = tideTable.level
	tideTable.raise(days * by)
	return first, tideTable.level
}

func night() {
	nightWith(theTable())
}

func nightWith(tideTable *TideTable) {
	tideTable.raise(1)
}

func main() {
	night()
	first, last := levels(1, 2)
	fmt.Println(mayEnter(3), first, last)
}
