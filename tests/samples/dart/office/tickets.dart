part of 'books.dart';

abstract class Tickets {  // entity: static-holder Tickets eager language
  static int next = 1;
  static int draw() {
    next += 1;
    return next;
  }
}

int tide = 0;  // entity: global-variable tide eager language
final waiting = <String>[];  // entity: global-variable waiting lazy language
final mainCrane = Crane(3);  // entity: shared-instance mainCrane lazy language

class Crane {
  int lifts;
  Crane(this.lifts);
  void lift() {
    lifts++;
  }
}

extension Shown on Ship {
  String get shown => name.toUpperCase();
}

mixin Numbered {
  int number = 0;
}

enum Flag { up, down }
