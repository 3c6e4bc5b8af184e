// What is made asks that its access point has run, and is told at once that it has.
namespace Marked
{
    public sealed class ToolBench  // entity: singleton ToolBench lazy lock
    {
        private static readonly object gate = new object();  // harmless: gate
        private static ToolBench bench;
        private static bool begun;  // entity: static-field begun eager language
        private int tools;

        private ToolBench(ToolMaker maker) { tools = maker.Count; }

        public static ToolBench Begin()
        {
            lock (gate)
            {
                if (!begun)
                {
                    begun = true;
                    bench = new ToolBench(new ToolMaker());  // finding: coupling.cycle
                }
                return bench;
            }
        }

        public int Tools() { return tools++; }
    }

    public class ToolMaker
    {
        public int Count;

        public ToolMaker()
        {
            ToolBench.Begin(); // near: init.reentrant
            Count = 3;
        }
    }
}
