// Kept by a function in a variable of its library.
Quay? _quay;  // entity: shared-instance _quay lazy single-threaded

Quay theQuay() => _quay ??= Quay();

class Quay {
  int ships = 0;
}
