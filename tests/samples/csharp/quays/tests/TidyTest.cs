using Quays.Ledgers;
