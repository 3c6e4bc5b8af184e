package hall

import "harbour/quays/ledgers"
