using System;

namespace Office
{
    /// <summary>The water's height, day by day.</summary>
    public sealed class TideTable
    {
        private int first = 4;

        public int Height(int day) => first + day;

        public void Raise(int by = 1)
        {
            first += by;
        }

        public void Forget()
        {
            first = 0;
        }
    }

    public class Pilot
    {
        private readonly TideTable tides;

        public Pilot(TideTable tides)
        {
            this.tides = tides ?? throw new ArgumentNullException(nameof(tides));
        }

        public bool MayEnter(int draught, int day)
        {
            tides.Raise();
            return tides.Height(day) > draught;
        }
    }

    static class Program
    {
        static bool DeepEnough(TideTable tides, int draught)
        {
            return tides.Height(0) > draught;
        }

        static void Main()
        {
            var tides = new TideTable();
            Console.WriteLine(new Pilot(tides).MayEnter(3, 1) && DeepEnough(tides, 4));
        }
    }
}
