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
    /// <summary>Opens the harbour.</summary>
    static void Open(string day)
    {
        Tides.Get().Start(day);
        Berths.Get().Start(day);
        Pilots.Get().Start("");
    }

    static void Main()
    {
        Open("Monday");
    }
}
