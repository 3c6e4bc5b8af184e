package books

import "sync"

func Instance() *BerthBook {
	once.Do(func() {
		instance = &BerthBook{berths: make(map[string]int)}
	})
	return instance
}
