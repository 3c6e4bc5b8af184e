using System.Threading;
using System.Threading.Tasks;

namespace Office.Threads;

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
