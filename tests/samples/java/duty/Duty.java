// Guards, starts, lists and ties of a harbour on duty.
package duty;

import java.io.FileReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;

class RadarSweep implements Runnable {
    private int angle;

    RadarSweep() {
        new Thread(this).start();  // finding: thread.escaping-this
        angle = 90;
    }

    public void run() {
        angle = 1;
    }
}

// Near misses: the thread is the last thing; it is started by another function.
class FogBell implements Runnable {
    private int strokes;

    FogBell() {
        strokes = 3;
        new Thread(this).start();  // near: thread.escaping-this
    }

    public void run() {
        strokes = 1;
    }
}

class TideMill implements Runnable {
    private int wheels;

    TideMill() {
        wheels = 2;
    }

    void start() {
        new Thread(this).start();
        wheels = 3;
    }

    public void run() {
        wheels = 1;
    }
}
