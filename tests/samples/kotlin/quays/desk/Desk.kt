package quays.desk

import quays.ledgers.HarbourDues
