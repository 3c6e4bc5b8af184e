import 'office.dart';

void main() {
  books.keep();
}
