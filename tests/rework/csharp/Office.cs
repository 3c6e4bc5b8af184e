using System;
using System.Collections.Generic;
using Harbour.Tides;

namespace Harbour
{
    public class Pilot
    {
        private readonly string name;
        private readonly int draught;

        public Pilot(string name, int draught = 1)
        {
            this.name = name;
            this.draught = draught;
        }

        public string Advice(int hour)
        {
            bool deep = TideTable.Instance.Height(hour) > draught;
            return name + (deep ? " sails at " : " waits at ") + hour;
        }
    }

    public class Ferry
    {
        public int Departure()
        {
            int hour = 0;
            while (TideTable.Instance.Height(hour) < 6)
            {
                hour++;
            }
            return hour;
        }
    }

    public class Office
    {
        private readonly List<Pilot> pilots = new List<Pilot>();

        public void Hire(string name, int draught)
        {
            pilots.Add(new Pilot(name, draught));
        }

        public void Hire(string name)
        {
            pilots.Add(new Pilot(name));
        }

        public string Day()
        {
            string text = "";
            foreach (Pilot pilot in pilots)
            {
                text += pilot.Advice(4) + "\n";
            }
            return text + "ferry at " + new Ferry().Departure() + "\n";
        }
    }

    static class Program
    {
        static void Main()
        {
            var office = new Office();
            office.Hire("Wren", 8);
            office.Hire("Tern");
            Console.Write(office.Day());
            Console.WriteLine(TideTable.Instance.Asked + " looks");
        }
    }
}
