// The same lock at each access.
final class TideBoard {
    private static final TideBoard BOARD = new TideBoard();
    private int level;

    private TideBoard() {
    }

    static TideBoard board() {
        return BOARD;
    }

    synchronized void set(int newLevel) {
        level = newLevel;
    }

    synchronized int level() {
        return level;
    }
}

class Station {
    void report() {
        new Thread(() -> TideBoard.board().set(3)).start();
    }
}
