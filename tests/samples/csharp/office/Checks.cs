using System;
using System.Collections.Generic;
using System.Threading;

namespace Office.Checks;

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

public static class Startup
{
    public static void Configure(IServices services)
    {
        services.AddSingleton<IDesk, CustomsDesk>();
    }
}
