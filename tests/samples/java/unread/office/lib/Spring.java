package office.lib;

public class Spring {
    private int turns;

    public static Spring create() {
        return new Spring();
    }

    public int turn() {
        return ++turns;
    }
}
