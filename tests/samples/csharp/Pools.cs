using System.Collections.Generic;

namespace Pools
{
    public class Engine
    {
        public string Code;
        public int Power;

        public void Start() { Power++; }
    }

    // Found by what they are called.
    public static class Engines  // entity: registry Engines eager language
    {
        private static List<Engine> all = new List<Engine>();

        public static Engine Find(string code)
        {
            foreach (Engine engine in all)
                if (engine.Code == code) return engine;
            return null;
        }

        public static void Add(Engine engine) { all.Add(engine); }  // finding: lifetime.grows-forever
    }

    // Near miss: the first one that runs, whoever asks.
    public static class Yard  // entity: static-holder Yard eager language
    {
        private static List<Engine> all = new List<Engine>();

        public static Engine Running()
        {
            foreach (Engine engine in all)
                if (engine.Power > 0) return engine;
            return null;
        }

        public static void Add(Engine engine) { all.Add(engine); }  // finding: lifetime.grows-forever
    }
}

namespace Pools
{
    public interface IPlan { int Next(); }

    // The one object of its class, which others know by what it can do.
    public class TidePlan : IPlan  // entity: singleton TidePlan eager language
    {
        private static readonly IPlan plan = new TidePlan();
        private int next;

        public static IPlan Plan { get { return plan; } }

        public TidePlan() { }  // finding: single.open-constructor

        public int Next() { return ++next; }
    }
}
