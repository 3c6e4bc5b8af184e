// Locks that callers hold, as comments say; a part that has a lock of its own; what is only done while the program starts.
package held

import "sync"

type spares struct {
	mu   sync.Mutex
	free []int
}

func (s *spares) take() int {
	s.mu.Lock()
	defer s.mu.Unlock()
	if len(s.free) == 0 {
		return 0
	}
	last := s.free[len(s.free)-1]
	s.free = s.free[:len(s.free)-1]
	return last
}

type office struct {
	mu     sync.Mutex
	lines  int
	loose  int
	spares spares
}

var desk office // entity: shared-instance desk eager language

// note adds one line.
// o.mu is held.
func (o *office) note() {
	o.lines++ // near: thread.mixed-guard
}

func (o *office) Write() {
	o.spares.take() // near: thread.mixed-guard
	o.mu.Lock()
	defer o.mu.Unlock()
	o.note()
	o.lines++
	o.loose++
	o.spares.take()
}

func (o *office) Slip() {
	o.loose++ // finding: thread.mixed-guard
}

var makers = map[string]func() int{} // entity: global-variable makers eager language

// Register keeps a maker under its name. It must only be called during
// initialization, for it takes no lock.
func Register(name string, maker func() int) {
	makers[name] = maker // near: thread.unguarded-state
}

func ForgetForTesting(name string) {
	delete(makers, name) // near: thread.unguarded-state
}

type clerk interface{ file() }

type filing struct{}

func (f filing) file() { desk.note() }

func Serve(work clerk) {
	for i := 0; i < 4; i++ {
		go func() {
			desk.Write()
			desk.Slip()
			work.file()
			if maker, known := makers["tide"]; known {
				maker()
			}
		}()
	}
}
