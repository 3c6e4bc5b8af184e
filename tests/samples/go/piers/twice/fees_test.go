package twice

import (
	"testing"

	"harbour/piers/ledgers"
)
