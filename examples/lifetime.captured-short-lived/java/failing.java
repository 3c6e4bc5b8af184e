// The register keeps the first visit's request for ever.
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

    synchronized String ship() {
        return current.ship;
    }
}

class Gate {
    void arrive(String ship) {
        VisitRequest request = new VisitRequest(ship);
        VisitRegister.register().begin(request);
    }
}
