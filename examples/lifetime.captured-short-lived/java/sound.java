// Blanked when the visit is over.
final class VisitRequest {
    final String ship;

    VisitRequest(String ship) {
        this.ship = ship;
    }
}

final class VisitRegister {
    private static final VisitRegister REGISTER = new VisitRegister();
    private VisitRequest current;

    private VisitRegister() {
    }

    static VisitRegister register() {
        return REGISTER;
    }

    synchronized void begin(VisitRequest request) {
        current = request;
    }

    synchronized void end() {
        current = null;
    }

    synchronized String ship() {
        return current == null ? "" : current.ship;
    }
}

class Gate {
    void arrive(String ship) {
        VisitRequest request = new VisitRequest(ship);
        VisitRegister.register().begin(request);
    }
}
