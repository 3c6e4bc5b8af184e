// Classes without a name: what is done inside of them counts.
package duty;

final class Foghorn {  // entity: singleton Foghorn eager language
    private static final Foghorn HORN = new Foghorn();
    private int blown;

    private Foghorn() {
    }

    static Foghorn horn() {
        return HORN;
    }

    void blow() {
        blown = 1;
    }
}

class FogPatrol {
    void start(List<Runnable> rounds) {
        rounds.add(new Runnable() {
            @Override
            public void run() {
                Foghorn.horn().blow();  // near: coupling.hidden-dependency
            }
        });
    }
}
