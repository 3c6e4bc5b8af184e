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
	return theTable().level > draught
}

func levels(days, by int) (first int, last int) {
	first = theTable().level
	theTable().raise(days * by)
	return first, theTable().level
}

func night() {
	theTable().raise(1)
}

func main() {
	night()
	first, last := levels(1, 2)
	fmt.Println(mayEnter(3), first, last)
}
