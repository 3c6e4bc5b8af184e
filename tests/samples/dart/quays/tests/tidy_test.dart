import '../ledgers/dues.dart';
