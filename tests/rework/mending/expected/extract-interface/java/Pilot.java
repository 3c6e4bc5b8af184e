package office;

import java.io.IOException;
import java.util.Map;

public class Pilot {
    private final TideTableInterface tides;

    public Pilot(TideTableInterface tides) {
        this.tides = tides;
    }

    boolean mayEnter(int draught, int day) throws IOException {
        if (tides == null) {
            return false;
        }
        tides.raise(1);
        return deepEnough(tides, draught) && tides.height(day) > draught;
    }

    static boolean deepEnough(TideTableInterface tides, int draught) {
        return tides.all(Map.of("a", draught)).size() == 1;
    }

    public static void main(String[] arguments) throws IOException {
        System.out.println(new Pilot(TideTable.make()).mayEnter(3, 1));
    }
}
