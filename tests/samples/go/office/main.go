package main

import "example.org/harbour/office/books"

func arrive(ship string) int {
	books.Instance().Assign(ship, 4)  // finding: tie.hidden-dependency
	book := books.Instance()
	books.Pilots().Add(ship)  // finding: tie.hidden-dependency
	books.Wait(ship)
	books.Tickets++  // finding: thread.lost-update tie.hidden-dependency
	return book.Changes() + books.Tides().Level()  // finding: tie.hidden-dependency
}

func main() {
	go arrive("Elm")
	arrive("Oak")
}
