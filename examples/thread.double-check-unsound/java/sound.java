// The field is volatile: who sees the reference sees the object behind it.
final class SignalMast {
    private static volatile SignalMast mast;
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
