package office;

import java.util.ArrayList;
import java.util.List;
import office.crew.Ferry;
import office.crew.Pilot;

public class Office {
    private final List<Pilot> pilots = new ArrayList<>();

    public void hire(String name, int draught) {
        pilots.add(new Pilot(name, draught));
    }

    public void hire(String name) {
        pilots.add(new Pilot(name));
    }

    public String day() {
        StringBuilder out = new StringBuilder();
        for (Pilot pilot : pilots) {
            out.append(pilot.advice(4)).append('\n');
        }
        out.append("ferry at ").append(new Ferry().departure()).append('\n');
        return out.toString();
    }

    public void remind() {
        for (Pilot pilot : pilots) {
            pilot.reminder(2).run();
        }
    }
}
