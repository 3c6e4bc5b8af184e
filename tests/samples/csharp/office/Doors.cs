using System.Collections.Generic;

namespace Office.Doors;

// The shift that is on, set by who begins it.
public class Shift
{
    public static Shift Current { get; set; } = new Shift();  // entity: shared-instance Current eager language
    public string Name = "none";
}

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

public class Gate
{
    private readonly Quay quay = Quay.Of("north");

    public void Open(Foghorn other)
    {
        Foghorn.Horn = other;  // finding: coupling.hidden-dependency
        Shift.Current.Name = "day";  // finding: coupling.hidden-dependency
        quay.Ships = 1;
    }
}
