package harbour.mixed;

public class Buoy {
  private int depth;

  public int getDepth() {
    return depth;
  }

  void light(int height) {
    Tower.INSTANCE.lit(height).use(); // finding: coupling.hidden-dependency
    Tower.INSTANCE.raised(height).use();
    Pier.Companion.get().moor();
  }

  int dim(int height) {
    Tower.INSTANCE.lit(2).use();
    Tower.INSTANCE.raised(height).use();
    return Tower.INSTANCE.getLevel();
  }
}
