class Desk {
  final int open = 1;
  int _served = 2;

  void serve(int ships) {
    _served += ships * open;
  }

  int all() => _served;
}

void main() {
  final desk = Desk();
  desk.serve(3);
  print(desk.all());
}
