package office;

import office.lib.Spring;
import java.util.Locale;
import java.util.concurrent.ThreadFactory;

// Code that is easily passed over, and names that are told by their imports.
class Yard {
    private static int cranes;  // entity: static-field cranes eager language
    {
        cranes++;
    }

    private static final Spring spring = Spring.create();  // entity: static-field spring eager language

    int wind() {
        return spring.turn();
    }
}

// A constant remembers a text that is worked out for a language; made by an interface of the library's; made on first use.
class Grade {
    static final Grade LOW = new Grade("low");  // harmless: LOW
    static final Grade HIGH = new Grade("high");  // harmless: HIGH
    private final String name;
    private String label;
    private Locale of;

    private Grade(String name) {
        this.name = name;
    }

    private String remembered() {
        return label != null && of == Locale.getDefault() ? label : null;
    }

    String label() {
        String known = remembered();
        if (known != null) return known;
        Locale now = Locale.getDefault();
        label = name + now;
        of = now;
        return label;
    }
}

final class Counter implements ThreadFactory {
    static final ThreadFactory factory = new Counter();  // entity: static-field factory eager language
    private int made;

    public Thread newThread(Runnable work) {
        made++;
        return new Thread(work);
    }
}

class Icons {  // entity: static-holder Icons lazy none
    private static Icon one;

    static Icon get() {
        if (one == null) one = new Icon();  // finding: thread.unguarded-creation
        return one;
    }
}

class Icon {
    int shown;

    void show() {
        shown++;
    }
}
