// Between finding no table and keeping one, other calls run.
using System;
using System.Threading;
using System.Threading.Tasks;

sealed class TideTable
{
    public static int Made;
    private static TideTable table;

    private TideTable()
    {
        Interlocked.Increment(ref Made);
    }

    public static async Task<TideTable> Table()
    {
        if (table == null)
        {
            await Task.Delay(20);  // reads the heights
            table = new TideTable();
        }
        return table;
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
