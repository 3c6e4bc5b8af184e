using System;
using System.Collections.Generic;
using System.Threading;

namespace Office.Checks;

// Made above what its constructor needs.
public sealed class SignalCode  // entity: singleton SignalCode eager language
{
    private static readonly SignalCode code = new SignalCode();  // finding: init.order-within-class
    private static readonly Dictionary<string, string> flags = new Dictionary<string, string>();  // harmless: flags
    private string last;

    private SignalCode()
    {
        last = flags["north"];
    }

    public static SignalCode Code => code;

    public void Show(string flag)
    {
        last = flag;
    }
}

// The lock is the caller's own.
public sealed class CargoScale  // entity: singleton CargoScale lazy lock
{
    private static CargoScale scale;
    private double load;

    private CargoScale() { }

    public static CargoScale Get()
    {
        var gate = new object();
        lock (gate)  // finding: thread.wrong-lock
        {
            if (scale == null)
            {
                scale = new CargoScale();  // finding: init.lazy-needless
            }
            return scale;
        }
    }

    public void Weigh(double tons)
    {
        load = tons;
    }
}

// The lock is replaced.
public sealed class DutyLog  // entity: singleton DutyLog lazy lock
{
    private static object gate = new object();  // entity: static-field gate eager language
    private static DutyLog log;
    private readonly List<string> lines = new List<string>();

    private DutyLog() { }

    public static DutyLog Get()
    {
        lock (gate)  // finding: thread.wrong-lock
        {
            if (log == null)
            {
                log = new DutyLog();  // finding: init.lazy-needless
            }
            return log;
        }
    }

    public static void Renew()
    {
        gate = new object();
    }

    public void Write(string line)
    {
        lines.Add(line);  // finding: lifetime.grows-forever
    }
}

// Taken and given back by calls.
public sealed class QuayLights  // entity: singleton QuayLights lazy lock
{
    private static readonly object gate = new object();  // harmless: gate
    private static QuayLights lights;
    private bool on;

    private QuayLights() { }

    public static QuayLights Get()
    {
        Monitor.Enter(gate);
        try
        {
            if (lights == null)
            {
                lights = new QuayLights();  // finding: init.lazy-needless
            }
            return lights;
        }
        finally
        {
            Monitor.Exit(gate);
        }
    }

    public void Turn()
    {
        on = !on;
    }
}

// Tested once only.
public sealed class TugList  // entity: singleton TugList lazy double-check-unsound
{
    private static readonly object gate = new object();  // harmless: gate
    private static volatile TugList tugs;
    private int count;

    private TugList() { }

    public static TugList Get()
    {
        if (tugs == null)  // finding: thread.double-check-incomplete
        {
            lock (gate)
            {
                tugs = new TugList();  // finding: init.lazy-needless
            }
        }
        return tugs;
    }

    public void Add()
    {
        count = count + 1;
    }
}

// Open to subclasses.
public class Harbourmaster  // entity: singleton Harbourmaster eager language
{
    public static readonly Harbourmaster Master = new Harbourmaster();
    private string name = "none";

    protected Harbourmaster() { }  // finding: single.subclassable

    public void Rename(string to)
    {
        name = to;
    }
}

// Nothing before it is opened.
public sealed class RadarPlot  // entity: singleton RadarPlot lazy none
{
    private static RadarPlot plot;
    private int echoes;

    private RadarPlot() { }

    public static void Open()
    {
        plot = new RadarPlot();
    }

    public static RadarPlot Plot
    {
        get { return plot; }  // finding: single.may-return-nothing
    }

    public void Echo()
    {
        echoes = echoes + 1;
    }
}

// In two parts.
public sealed partial class Anchorage  // entity: singleton Anchorage lazy none
{
    private static Anchorage only;
    private int ships;

    private Anchorage() { }
}

public sealed partial class Anchorage
{
    public static Anchorage Only
    {
        get
        {
            if (only == null)
            {
                only = new Anchorage();  // finding: thread.unguarded-creation
            }
            return only;
        }
    }

    public void Drop()
    {
        ships = ships + 1;
    }
}

public interface IDesk { }

public class CustomsDesk : IDesk { }  // entity: container-managed CustomsDesk

public class Inspector
{
    private readonly IDesk desk;

    public Inspector(IDesk desk)
    {
        this.desk = desk;
    }
}

public static class Startup
{
    public static void Configure(IServices services)
    {
        services.AddSingleton<IDesk, CustomsDesk>();
    }
}

// Near misses.
public class Receipt
{
    public const int Limit = 12;  // harmless: Limit
    public static Receipt Instance => new Receipt();
    public static readonly string[] Names = { "north", "south" };  // harmless: Names
}
