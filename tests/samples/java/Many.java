// Objects that can change, as values with names: dozens of the class are made elsewhere, and these stay as they are.
class Cargo {
  private final String name;
  private String mark;

  Cargo(String name) {
    this.name = name;
  }

  void mark(String mark) {
    this.mark = mark;
  }

  String name() {
    return name + mark;
  }
}

final class Cargoes {
  static final Cargo COAL = new Cargo("coal");    // harmless: COAL
  static final Cargo CORN = new Cargo("corn");    // harmless: CORN
  static final Cargo FISH = new Cargo("fish");    // harmless: FISH
  static final Cargo IRON = new Cargo("iron");    // harmless: IRON
  static final Cargo SALT = new Cargo("salt");    // harmless: SALT
  static final Cargo WOOD = new Cargo("wood");    // harmless: WOOD
  static final Cargo LATEST = new Cargo("none");  // entity: static-field LATEST eager language

  static String list() {
    LATEST.mark("here");
    return COAL.name() + CORN.name() + FISH.name() + IRON.name() + SALT.name() + WOOD.name();
  }
}

// Another name of what others keep, where only its own package could set it.
final class Kinds {
  static Cargo usual = Cargoes.COAL;  // harmless: usual

  static String name() {
    return usual.name();
  }
}
