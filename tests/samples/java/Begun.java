import java.util.Random;

// A holder for one value of another class, and a double check with a chained assignment.
final class Dice {
  private Dice() {}

  private static class Kept {
    static Random random = new Random();  // entity: shared-instance random lazy language
  }

  private static volatile Random named;  // entity: shared-instance named lazy double-check

  static Random random() {
    return Kept.random;
  }

  static void forget() {
    named = null;
  }

  static Random named() {
    Random result = named;
    if (result == null) {
      synchronized (Dice.class) {
        result = named;
        if (result == null) {
          named = result = new Random();
        }
      }
    }
    return result;
  }
}
