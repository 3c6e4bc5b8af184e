// The thread begins before the station has its name.
final class Station implements Runnable {
    private static final Station STATION = new Station("Elmwater");
    private final String name;

    private Station(String name) {
        new Thread(this).start();
        this.name = name;
    }

    static Station station() {
        return STATION;
    }

    @Override
    public void run() {
        System.out.println(name);
    }
}
