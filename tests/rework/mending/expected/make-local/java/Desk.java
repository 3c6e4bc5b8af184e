final class Desk {
    private final int open = 1;
    private int served = 2;  // since the morning

    void serve(int ships) {
        served += ships * open;
    }

    int served() {
        return served;
    }

    void reset(int served) {
        this.served = served;
    }

    public static void main(String[] arguments) {
        Desk desk = new Desk();
        desk.serve(3);
        System.out.println(desk.served());
        desk.reset(1);
        System.out.println(desk.served());
    }
}
