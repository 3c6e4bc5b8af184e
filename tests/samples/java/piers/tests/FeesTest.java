package piers.tests;

import piers.ledgers.PilotFees;
