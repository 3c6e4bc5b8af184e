import '../ledgers/fees.dart' as ledger;
