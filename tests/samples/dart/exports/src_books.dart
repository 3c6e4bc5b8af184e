class Books {
  int kept = 0;
  void keep() {
    kept += 1;
  }
}

final books = Books();  // entity: shared-instance books lazy language

// A setting for those who use the library.
class Limits {  // entity: static-holder Limits eager language
  static int most = 9;
  static bool isOver(int n) => n > most;
}
