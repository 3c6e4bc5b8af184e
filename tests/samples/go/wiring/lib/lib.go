// Package lib holds what other packages wire, and values that are copies.
package lib

import "sync"

var Setter = func(key string) error { return nil }  // entity: global-variable Setter eager language

func Set(key string) error { return Setter(key) }

type Options struct{ Deep bool }

var DefaultOptions = Options{}  // harmless: DefaultOptions
var Current = DefaultOptions  // entity: global-variable Current eager language

func Deepen() { Current.Deep = true }

type Pool interface{ Take() int }

var pool Pool  // entity: global-variable pool elsewhere none

func SetPool(p Pool) { pool = p }

func Take() int { return pool.Take() }

var name string  // harmless: name
var once sync.Once  // harmless: once

func compute() string { return "office" }

func Name() string {
	once.Do(func() { name = compute() })
	return name
}

type Table struct{ rows map[string]int }

func NewTable() *Table { return &Table{rows: map[string]int{}} }

func (t *Table) Add(key string, value int) { t.rows[key] = value }
func (t *Table) Get(key string) int       { return t.rows[key] }

var codes = NewTable()  // harmless: codes

func init() {
	codes.Add("north", 1)
}

func Code(key string) int { return codes.Get(key) }

type Desk struct{ asked int }

func NewDesk() *Desk {
	d := new(Desk)
	return d
}

func (d *Desk) Ask() int { d.asked++; return d.asked }

var desk *Desk  // entity: shared-instance desk eager language

func init() {
	desk = NewDesk()
}

func Ask() int { return desk.Ask() }
