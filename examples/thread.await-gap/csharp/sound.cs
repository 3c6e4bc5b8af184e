// What is kept is the task, which is made once.
using System;
using System.Threading;
using System.Threading.Tasks;

sealed class TideTable
{
    public static int Made;
    private static readonly Lazy<Task<TideTable>> table = new Lazy<Task<TideTable>>(() => Read());

    private TideTable()
    {
        Interlocked.Increment(ref Made);
    }

    private static async Task<TideTable> Read()
    {
        await Task.Delay(20);  // reads the heights
        return new TideTable();
    }

    public static Task<TideTable> Table()
    {
        return table.Value;
    }
}

static class Program
{
    static int Main()
    {
        Task.WaitAll(TideTable.Table(), TideTable.Table(), TideTable.Table());
        Console.WriteLine(TideTable.Made + " made");
        return TideTable.Made == 1 ? 0 : 1;
    }
}
