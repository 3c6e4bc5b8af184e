package pay

import (
	"testing"

	"harbour/quays/ledgers"
)
