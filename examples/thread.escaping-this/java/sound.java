// Started when it stands.
final class Station implements Runnable {
    private static final Station STATION = new Station("Elmwater");
    private final String name;

    private Station(String name) {
        this.name = name;
    }

    static Station station() {
        return STATION;
    }

    void start() {
        new Thread(this).start();
    }

    @Override
    public void run() {
        System.out.println(name);
    }
}
