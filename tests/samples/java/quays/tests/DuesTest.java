package quays.tests;

import quays.ledgers.HarbourDues;
