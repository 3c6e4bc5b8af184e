// Near misses: what is only looked up is not started; what checks constant arguments does not throw at load; a
// variable that holds now the shared object and now another one stands for neither.
final class Flag {
    static final Flag NIGHT = new Flag(1);  // entity: static-field NIGHT eager language  // near: init.may-throw
    static final Flag FOG = new Flag(2);  // entity: static-field FOG eager language

    private final int code;
    private int hoisted;

    Flag(int code) {
        switch (code) {
            case 1:
            case 2:
                this.code = code;
                break;
            default:
                throw new IllegalArgumentException("no such flag");
        }
    }

    void hoist() {
        hoisted++;
    }

    int hoisted() {
        return hoisted;
    }
}

class Signaller {
    int signal(boolean night) {
        Flag flag;
        if (night) {
            flag = Flag.NIGHT;
        } else {
            flag = new Flag(2);
        }
        flag.hoist();  // near: coupling.hidden-dependency
        return flag.hoisted();
    }
}
