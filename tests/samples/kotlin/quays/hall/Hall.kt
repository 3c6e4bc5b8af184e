package quays.hall

import quays.ledgers.HarbourDues
