// A slot for each class.
class Office {
    private static Office office;

    static Office office() {
        if (office == null) {
            office = new Office();
        }
        return office;
    }
}

class NightOffice extends Office {
    private static NightOffice night;

    static Office nightOffice() {
        if (night == null) {
            night = new NightOffice();
        }
        return night;
    }
}

class Main {
    public static void main(String[] arguments) {
        Office.office();
        boolean night = NightOffice.nightOffice() instanceof NightOffice;
        System.out.println(night ? "a night office" : "a day office at night");
        System.exit(night ? 0 : 1);
    }
}
