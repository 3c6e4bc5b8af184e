// Each new one stands on the one before it: a row of them, of which the last is the current one.
namespace Rows
{
    public class ShiftState
    {
        private static ShiftState current = new ShiftState();  // entity: shared-instance current eager language
        private readonly ShiftState before;
        private int calls;

        public ShiftState() { } // near: single.open-constructor
        private ShiftState(ShiftState before) { this.before = before; calls = before.calls; }

        public static ShiftState Current { get { return current; } }
        public static void Save() { current = new ShiftState(current); }
        public static void Restore() { current = current.before; }
        public void Called() { calls++; }
    }
}
