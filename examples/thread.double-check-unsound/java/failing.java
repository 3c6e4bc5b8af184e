// The test outside of the lock reads a plain field: the reference may be seen before what it refers to.
final class SignalMast {
    private static SignalMast mast;
    private int flags = 3;

    private SignalMast() {
    }

    static SignalMast mast() {
        if (mast == null) {
            synchronized (SignalMast.class) {
                if (mast == null) {
                    mast = new SignalMast();
                }
            }
        }
        return mast;
    }

    int flags() {
        return flags;
    }
}

class Pilot implements Runnable {
    public void run() {
        System.out.println(SignalMast.mast().flags());
    }

    static void call() {
        new Thread(new Pilot()).start();
    }
}
