package ledgers

import "sync"

// Lends buffers: who borrows one finds nothing of who had it before.
type lending struct {
	free sync.Pool
}

func (l *lending) Take() interface{}  { return l.free.Get() }
func (l *lending) Give(b interface{}) { l.free.Put(b) }

var Buffers lending // entity: shared-instance Buffers eager language
