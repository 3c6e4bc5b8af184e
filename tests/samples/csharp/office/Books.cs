using System;
using System.Collections.Generic;

namespace Harbour.Office;

// Double-checked without volatile.
public sealed class BerthBook  // entity: singleton BerthBook lazy double-check-unsound
{
    private static BerthBook instance;
    private static readonly object gate = new object();  // harmless: gate
    private readonly Dictionary<string, int> berths = new();

    private BerthBook() { }

    public static BerthBook Instance
    {
        get
        {
            if (instance == null)  // finding: thread.double-check-unsound
            {
                lock (gate)
                {
                    if (instance == null) instance = new BerthBook();  // finding: init.lazy-needless
                }
            }
            return instance;
        }
    }

    public void Assign(string ship, int berth)
    {
        lock (gate) { berths[ship] = berth; }  // near: lifetime.grows-forever
    }

    public int Count()
    {
        lock (gate) { return berths.Count; }
    }
}

// A lazy wrapper: guarded by the library.
public class TideTable  // entity: singleton TideTable lazy language
{
    private static readonly Lazy<TideTable> lazy = new Lazy<TideTable>(() => new TideTable());
    public static TideTable Instance => lazy.Value;
    private int level;
    private TideTable() { }
    public int Rise() { lock (lazy) { return ++level; } }
}

// Unguarded, with ??=.
public class PilotRoster  // entity: singleton PilotRoster lazy none
{
    private static PilotRoster roster;
    private readonly List<string> pilots = new();
    private PilotRoster() { }
    public static PilotRoster Get()
    {
        return roster ??= new PilotRoster();  // finding: thread.unguarded-creation
    }
    public void Add(string pilot) { pilots.Add(pilot); }  // finding: lifetime.grows-forever
}

// A property that anybody may read; the class stays open.
public class Clock
{
    public static Clock Shared { get; } = new Clock();  // entity: shared-instance Shared eager language
    public int Ticks;
}

public static class Tickets  // entity: static-holder Tickets eager language
{
    private static int next = 1;
    public static int Draw() => next++;  // finding: thread.lost-update
}

public static class Codes
{
    public const int Limit = 12;  // harmless: Limit
    private static readonly string Anchor = "A";  // harmless: Anchor
    public static string Name() => Anchor;
}
