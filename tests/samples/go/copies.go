package copies

const size = 4  // harmless: size

// An array is copied: who takes it changes a copy.
var empty = [size]byte{}  // harmless: empty

type Level struct {
	sums [size]byte
}

func (l *Level) Clear() { l.sums = empty }

func (l *Level) Add(more []byte) {
	for i := range l.sums {
		l.sums[i] += more[i]
	}
}

var shared = []byte{0, 0, 0, 0} // entity: global-variable shared eager language

func Mark(at int) { shared[at] = 1 }
