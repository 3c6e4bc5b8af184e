class Desk {
  final int open = 1;
  static int _served = 2;

  void serve(int ships) {
    Desk._served += ships * open;
  }

  int all() => _served;
}

void main() {
  final desk = Desk();
  desk.serve(3);
  print(desk.all());
}
