using System.Threading;
using System.Threading.Tasks;

namespace Office.Threads;

// Counted by two threads.
public static class Tally  // entity: static-holder Tally eager language
{
    private static int ships;
    private static int boats;
    private static readonly object gate = new object();  // harmless: gate

    public static void Arrive()
    {
        ships++;  // finding: thread.lost-update
        lock (gate)
        {
            boats++;
        }
    }

    public static void Watch()
    {
        Task.Run(() => Arrive());
        Arrive();
    }
}

// Each thread has its own.
public static class Watch
{
    [ThreadStatic]
    private static string keeper;  // entity: thread-local keeper eager language

    public static string Keeper => keeper;

    public static void Begin(string name)
    {
        keeper = name;
    }
}
