package piers.tests

import piers.ledgers.fees
