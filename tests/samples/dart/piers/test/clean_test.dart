import '../ledgers/fees.dart';
