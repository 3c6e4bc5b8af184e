package piers.hall

import piers.ledgers.fees
