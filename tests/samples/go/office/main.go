package main

import "example.org/harbour/office/books"

func arrive(ship string) int {
	books.Instance().Assign(ship, 4)
	book := books.Instance()
	books.Pilots().Add(ship)
	books.Wait(ship)
	books.Tickets++  // finding: thread.lost-update
	return book.Changes() + books.Tides().Level()
}

func main() {
	go arrive("Elm")
	arrive("Oak")
}
