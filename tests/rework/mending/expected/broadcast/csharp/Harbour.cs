using System;

sealed class Tides
{
    private static readonly Tides shared = new Tides();
    private int started;

    private Tides()
    {
    }

    public static Tides Get()
    {
        return shared;
    }

    public void Start(string day)
    {
        started++;
        Console.WriteLine("tides " + started + day);
    }
}

sealed class Berths
{
    private static readonly Berths shared = new Berths();
    private int started;

    private Berths()
    {
    }

    public static Berths Get()
    {
        return shared;
    }

    public void Start(string day)
    {
        started++;
        Console.WriteLine("berths " + started + day);
    }
}

sealed class Pilots
{
    private static readonly Pilots shared = new Pilots();
    private int started;

    private Pilots()
    {
    }

    public static Pilots Get()
    {
        return shared;
    }

    public void Start(string day)
    {
        started++;
        Console.WriteLine("pilots " + started + day);
    }
}

static class Harbour
{
    /// <summary>Tells those who listen, in the order in which they came, that the program starts.</summary>
    private sealed class StartUp
    {
        private readonly System.Collections.Generic.List<System.Action> listeners = new System.Collections.Generic.List<System.Action>();

        public void Add(System.Action listener)
        {
            listeners.Add(listener);
        }

        public void Announce()
        {
            foreach (var listener in listeners)
            {
                listener();
            }
        }
    }

    /// <summary>Opens the harbour.</summary>
    static void Open(string day)
    {
        var startUp = new StartUp();
        startUp.Add(() => { Tides.Get().Start(day); });
        startUp.Add(() => { Berths.Get().Start(day); });
        startUp.Add(() => { Pilots.Get().Start(""); });
        startUp.Announce();
    }

    static void Main()
    {
        Open("Monday");
    }
}
