package filters

// Chain keeps what each call goes through.
type Chain struct {
	filters []func()
}

var usual = &Chain{} // entity: shared-instance usual eager language

// Run puts the call's own filters behind those that are kept: what is kept is only read.
func (c *Chain) Run(own []func()) { // near: lifetime.grows-forever
	all := make([]func(), 0, len(c.filters)+len(own))
	all = append(all, c.filters...)
	all = append(all, own...)
	for _, f := range all {
		f()
	}
}

// Serve runs the usual chain.
func Serve() {
	for {
		go usual.Run(nil)
	}
}

// Use sets the filters.
func Use(filters []func()) { usual.filters = filters } // finding: thread.unguarded-state
