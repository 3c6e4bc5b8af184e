// Values that their classes name, tables that are only filled while they are loaded, and objects whose
// base can change but which are never told to.
import java.util.ArrayList;
import java.util.List;

class Cloth {
  private boolean torn;

  void setTorn(boolean torn) { this.torn = torn; }
  boolean isTorn() { return torn; }
}

final class Flag extends Cloth {
  static final Flag ALPHA = new Flag("alpha");  // harmless: ALPHA
  static final Flag BRAVO = new Flag("bravo");  // harmless: BRAVO
  static final Flag CHARLIE = new Flag("charlie");  // harmless: CHARLIE
  static final Flag DELTA = new Flag("delta");  // harmless: DELTA
  static final Flag ECHO = Flag.of("echo");  // harmless: ECHO

  private final String name;

  private Flag(String name) { this.name = name; }
  static Flag of(String name) { return new Flag(name); }
  String name() { return name; }
}

final class Sail extends Cloth {
  static final Sail SPARE = new Sail();  // harmless: SPARE
}

class Rig {
  private int reefs;

  void reef(int by) { reefs = by; }
  int reefs() { return reefs; }
}

final class FixedRig extends Rig {
  static final Rig STORM = new FixedRig();  // harmless: STORM

  @Override
  void reef(int by) { throw new IllegalStateException(); }
}

final class CodeBook {
  private static final Node ROOT = new Node();  // harmless: ROOT

  static {
    ROOT.add("a", 1);
    ROOT.add("b", 2);
  }

  private CodeBook() {}

  private static final class Node {
    private final List<String> words = new ArrayList<>();
    private int last;

    void add(String word, int number) {
      words.add(word);
      last = number;
    }
  }
  static int find(String word) { return look(ROOT, word); }
  private static int look(Node from, String word) { return from.words.indexOf(word) + from.last; }
}

class FlagLocker {
  void spoil(Flag flag, Cloth cloth, Sail sail) {
    cloth.setTorn(true);
    if (flag == Flag.ALPHA && !Sail.SPARE.isTorn()) sail.setTorn(false);
    FixedRig.STORM.reef(CodeBook.find(flag.name()) + Flag.BRAVO.name().length());
    System.out.println(Flag.CHARLIE.name() + Flag.DELTA.name() + Flag.ECHO.name() + Flag.of("x").isTorn());
  }
}
