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
        lines.Add(line);  // finding: thread.unguarded-state lifetime.grows-forever
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
