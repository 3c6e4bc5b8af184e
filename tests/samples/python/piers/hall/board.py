import ledgers.fees
