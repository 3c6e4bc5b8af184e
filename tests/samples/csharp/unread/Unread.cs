// Code that is easily passed over: a lock without braces, casts through pointers, indexers, events, branches that are not built.
using System;
using System.Collections.Generic;

public static class Pilots  // entity: static-holder Pilots eager language
{
    private static readonly object gate = new object();  // harmless: gate
    private static readonly List<string> names = new List<string>();

    public static void Add(string name)
    {
        lock (gate) names.Add(name);  // finding: lifetime.grows-forever
    }

    public static int Count()
    {
        lock (gate)
            return names.Count;
    }
}

public unsafe struct Mark  // entity: static-holder Mark eager language
{
    private static int made;

    public static uint Take(uint value)
    {
        int room = 0;
        int* at = &room;
        *(uint*)at = value;
        made++;  // finding: thread.lost-update
        return *(uint*)at;
    }
}

public class Quay
{
    private static int asked;  // entity: static-field asked eager language

    public int this[int berth]
    {
        get { asked++; return berth; }  // finding: thread.lost-update
    }
}

public class Tides  // entity: static-holder Tides eager language
{
    private static int high;

    public static int Next()
    {
#if SMALL
        return 0;
#else
        return Beacon.Instance.Turn() + high++;  // near: coupling.hidden-dependency
#endif
    }
}

public class Beacon  // entity: singleton Beacon lazy none
{
    private static Beacon instance;
    private int turns;

    private Beacon() { }

    public static Beacon Instance
    {
        get
        {
            if (instance == null) instance = new Beacon();  // finding: thread.unguarded-creation
            return instance;
        }
    }

    public int Turn() { return ++turns; }
}

// An array of its own class is no instance; a generator keeps state; a name in capitals is a constant by convention.
public class Rope  // entity: static-holder Rope lazy none
{
    private static Rope[] none = null;
    private static readonly Random chance = new Random();
    public static string KIND = "hemp";  // harmless: KIND
    public static int longest = 9;

    public static Rope[] None
    {
        get
        {
            if (none == null) none = new Rope[0];
            return none;
        }
    }

    public static int Any() { return chance.Next() + longest + KIND.Length; }
}
