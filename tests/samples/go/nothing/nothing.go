// Package nothing has one value for "nothing": who asks gets it, or another one.
package nothing

type Reading struct {
	name  string
	depth int
	known bool
}

var noReading = &Reading{name: "none"} // near: coupling.wide-reach  // entity: shared-instance noReading eager language

func newReading(name string, depth int) *Reading {
	r := &Reading{name: name, depth: depth}
	r.known = true
	return r
}

type Readings struct{ all map[string]*Reading }

func (rs *Readings) Look(name string) *Reading {
	if name == "" {
		return noReading
	}
	return newReading(name, 3)
}

func (r *Reading) deepen() { r.depth++ }

type A struct{ rs *Readings }
type B struct{ rs *Readings }
type C struct{ rs *Readings }
type D struct{ rs *Readings }
type E struct{ rs *Readings }

func (a *A) Go() { a.rs.Look("a").deepen() }
func (b *B) Go() { b.rs.Look("b").deepen() }
func (c *C) Go() { c.rs.Look("c").deepen() }
func (d *D) Go() { d.rs.Look("d").deepen() }
func (e *E) Go() { e.rs.Look("e").deepen() }
