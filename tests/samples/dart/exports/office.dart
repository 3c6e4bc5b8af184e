// What a library hands on of another is its own.
export 'src_books.dart';
