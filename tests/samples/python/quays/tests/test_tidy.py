from ledgers.dues import dues
