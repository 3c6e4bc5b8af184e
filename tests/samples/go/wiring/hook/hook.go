package hook

import "lib"

func save(key string) error { return nil }

func init() {
	lib.Setter = save
}
