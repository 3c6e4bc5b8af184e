using System.Collections.Generic;

namespace Office.Doors;

// One for each quay.
public class Quay
{
    private static readonly Dictionary<string, Quay> quays = new Dictionary<string, Quay>();  // entity: registry quays eager language
    public int Ships;

    private Quay() { }

    public static Quay Of(string name)
    {
        if (!quays.ContainsKey(name))  // finding: thread.check-then-act
        {
            quays[name] = new Quay();
        }
        return quays[name];
    }
}

// Replaced while others hold the old one.
public sealed class Foghorn  // entity: singleton Foghorn eager language
{
    private static Foghorn horn = new Foghorn();
    private int blown;

    private Foghorn() { }

    public static Foghorn Horn
    {
        get { return horn; }
        set { horn = value; }
    }

    public void Blow()
    {
        blown = blown + 1;
    }
}
