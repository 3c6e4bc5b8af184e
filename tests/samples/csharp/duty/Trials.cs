// A lock that is only tried, and given back in the last part of a try.
using System;
using System.Threading;

namespace Duty
{
    public sealed class SlipGauge  // entity: singleton SlipGauge eager language
    {
        private static readonly SlipGauge gauge = new SlipGauge();
        private readonly object gate = new object();
        private int depth;
        private int draught;

        private SlipGauge() { }

        public static SlipGauge Gauge() { return gauge; }

        public void Set(int newDepth, int newDraught)
        {
            lock (gate)
            {
                depth = newDepth;
                draught = newDraught;
            }
        }

        // Near miss: whoever gives it back held it.
        public int Depth()
        {
            if (!Monitor.TryEnter(gate)) return -1;
            try
            {
                return depth;  // near: thread.mixed-guard
            }
            finally
            {
                Monitor.Exit(gate);
            }
        }

        public int Draught()
        {
            try
            {
                return draught;  // finding: thread.mixed-guard
            }
            finally
            {
                Console.WriteLine("read");
            }
        }
    }
}
