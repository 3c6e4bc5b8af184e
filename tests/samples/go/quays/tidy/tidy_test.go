package tidy

import (
	"testing"

	"harbour/quays/ledgers"
)

// Near miss: puts it back.
func TestAddsUpAndClears(t *testing.T) {
	ledgers.TheDues().Enter(3) // near: coupling.test-leak
	ledgers.TheDues().Clear()
}
