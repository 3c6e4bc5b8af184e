// The night office finds the day office in the slot that both use.
class Office {
    protected static Office office;

    static Office office() {
        if (office == null) {
            office = new Office();
        }
        return office;
    }
}

class NightOffice extends Office {
    static Office nightOffice() {
        if (office == null) {
            office = new NightOffice();
        }
        return office;
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
