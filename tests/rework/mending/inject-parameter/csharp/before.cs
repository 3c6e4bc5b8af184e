using System;

sealed class TideTable
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

    public void Raise(int by)
    {
        level += by;
    }

    public int Level()
    {
        return level;
    }
}

static class Harbour
{
    public static bool MayEnter(int draught)
    {
        return TideTable.Get().Level() > draught;
    }

    static void Main()
    {
        TideTable.Get().Raise(1);
        Console.WriteLine(MayEnter(3));
    }
}
