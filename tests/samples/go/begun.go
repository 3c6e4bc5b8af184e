// How state begins: under a once flag, by a setter in init, by a local that is worked out.
package begun

import (
	"net"
	"os"
	"sync"
)

var folders []string  // entity: global-variable folders lazy once
var onceFolders sync.Once  // harmless: onceFolders

func readFolders() {
	folders = append(folders, os.TempDir())
}

func Folders() []string {
	onceFolders.Do(readFolders)
	return folders
}

type Bells interface{ Ring() int }

type ship struct{ rung int }

func (s *ship) Ring() int {
	s.rung++
	return s.rung
}

var bells Bells  // entity: shared-instance bells eager language

func init() {
	SetBells(&ship{rung: 1})
}

func SetBells(one Bells) {
	bells = one  // finding: single.replaceable
}

type Mole struct {
	open int
	at   net.Listener
}

func NewMole() (*Mole, error) {
	return &Mole{}, nil
}

func (m *Mole) Moor() { m.open++ }

var mole *Mole  // entity: shared-instance mole lazy lock
var moleLock sync.Mutex  // harmless: moleLock

func start() error {
	moleLock.Lock()
	defer moleLock.Unlock()
	if mole != nil {
		return nil
	}
	var one *Mole
	var err error
	one, err = NewMole()
	if err != nil {
		return err
	}
	mole = one
	return nil
}

func Moor() {
	if start() == nil {
		mole.Moor()  // finding: thread.mixed-guard
	}
}

func Close() {
	moleLock.Lock()
	defer moleLock.Unlock()
	mole = nil
}

// Made under a once flag, and put in another's place without one.
type Light struct{ lit int }

var light *Light // entity: shared-instance light lazy once
var onceLight sync.Once // harmless: onceLight

func TheLight() *Light {
	onceLight.Do(func() {
		light = &Light{}
	})
	light.lit++
	return light
}

func SetLight(other *Light) {
	light = other // finding: thread.mixed-guard single.replaceable
}
