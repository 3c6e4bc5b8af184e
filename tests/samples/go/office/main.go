package main

import "example.org/harbour/office/books"

func arrive(ship string) int {
	books.Instance().Assign(ship, 4)  // finding: coupling.hidden-dependency
	book := books.Instance()
	books.Pilots().Add(ship)  // finding: coupling.hidden-dependency
	books.Wait(ship)
	books.Tickets++  // finding: thread.lost-update coupling.hidden-dependency
	return book.Changes() + books.Tides().Level()  // finding: coupling.hidden-dependency
}

func main() {
	go arrive("Elm")
	arrive("Oak")
}
