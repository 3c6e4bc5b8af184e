package tidy

import (
	"testing"

	"harbour/quays/ledgers"
)
