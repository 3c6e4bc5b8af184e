package main

import "sync"

type Tickets struct{ last int }

func (t *Tickets) Next() int {
	t.last++
	return t.last
}

type counter struct{ tickets *Tickets }

func (c *counter) Get() *Tickets {
	if c.tickets == nil {
		c.tickets = &Tickets{} // finding: thread.unguarded-creation
	}
	return c.tickets
}

var desk counter // entity: shared-instance desk eager language

func main() {
	var both sync.WaitGroup
	for i := 0; i < 2; i++ {
		both.Add(1)
		go func() {
			defer both.Done()
			desk.Get().Next()
		}()
	}
	both.Wait()
}
