package books

import "errors"

var Tickets int  // entity: global-variable Tickets eager language

var waiting []string  // entity: global-variable waiting eager language

func Wait(ship string) { waiting = append(waiting, ship) }  // finding: thread.unguarded-state  // finding: lifetime.grows-forever
