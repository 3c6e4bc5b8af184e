package main

import "fmt"

type Keeper interface{ Heard(signal int) }

type signalMast struct {
	keepers []Keeper
}

var mast = &signalMast{}

func Mast() *signalMast { return mast }

func (m *signalMast) Attach(keeper Keeper) {
	m.keepers = append(m.keepers, keeper)
}

func (m *signalMast) Detach(keeper Keeper) {
	for i, one := range m.keepers {
		if one == keeper {
			m.keepers = append(m.keepers[:i], m.keepers[i+1:]...)
			return
		}
	}
}

func (m *signalMast) Raise(signal int) {
	for _, keeper := range m.keepers {
		keeper.Heard(signal)
	}
}

type Lookout struct {
	last int
}

func (l *Lookout) Open() {
	Mast().Attach(l)
}

func (l *Lookout) Heard(signal int) { l.last = signal }

func (l *Lookout) Close() {
	Mast().Detach(l)
	l.last = 0
}

func main() {
	lookout := &Lookout{}
	lookout.Open()
	Mast().Raise(3)
	fmt.Println(lookout.last)
	lookout.Close()
}
