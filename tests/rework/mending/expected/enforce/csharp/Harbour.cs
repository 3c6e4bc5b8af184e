using System;

public sealed class TideTable
{
    private static readonly TideTable table = new TideTable();
    private int level = 3;

    private TideTable()
    {
    }

    public static TideTable Get()
    {
        return table;
    }

    public int Rise()
    {
        return ++level;
    }
}

static class Harbour
{
    static void Main()
    {
        Console.WriteLine(TideTable.Get().Rise() + TideTable.Get().Rise());
    }
}
