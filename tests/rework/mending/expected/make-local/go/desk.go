package main

import "fmt"

// Desk serves ships.
type Desk struct {
	open int
	served int
}

func (d *Desk) Serve(ships int) {
	d.served += ships * d.open
}

func (d *Desk) All() int {
	return d.served
}

func main() {
	desk := &Desk{open: 1}
	desk.Serve(3)
	fmt.Println(desk.All())
}
