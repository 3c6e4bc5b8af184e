// The table is made on first use, and nothing keeps a second first user out.
using System;
using System.Threading;

sealed class TideTable
{
    public static int Made;
    private static TideTable table;

    private TideTable()
    {
        Thread.Sleep(20);  // works out the year's tides
        Interlocked.Increment(ref Made);
    }

    public static TideTable Table()
    {
        if (table == null)
        {
            table = new TideTable();
        }
        return table;
    }
}

static class Program
{
    static int Main()
    {
        var pilots = new Thread[4];
        for (int i = 0; i < pilots.Length; i++)
        {
            pilots[i] = new Thread(() => TideTable.Table());
        }
        foreach (Thread pilot in pilots)
        {
            pilot.Start();
        }
        foreach (Thread pilot in pilots)
        {
            pilot.Join();
        }
        Console.WriteLine(TideTable.Made + " made");
        return TideTable.Made == 1 ? 0 : 1;
    }
}
