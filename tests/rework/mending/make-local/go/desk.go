package main

import "fmt"

// served since the morning
var served int

// Desk serves ships.
type Desk struct {
	open int
}

func (d *Desk) Serve(ships int) {
	served += ships * d.open
}

func (d *Desk) All() int {
	return served
}

func main() {
	desk := &Desk{open: 1}
	desk.Serve(3)
	fmt.Println(desk.All())
}
