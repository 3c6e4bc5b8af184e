// Stores of the harbour: what keeps things for a while, and looks like what keeps them for ever.
package stores;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Queue;

// Near miss: nobody leaves the list alone; it is emptied as a whole, by a method that is told something else.
interface Errand {
    void run();
}
