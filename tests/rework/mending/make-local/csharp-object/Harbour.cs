using System;

sealed class TideTable
{
    private static readonly TideTable table = new TideTable(4);

    private int first;

    private TideTable(int first)
    {
        this.first = first;
    }

    /// <summary>The one that there is.</summary>
    public static TideTable Get()
    {
        return table;
    }

    public int Height(int day)
    {
        return first + day;
    }

    public void Raise(int by)
    {
        first += by;
    }
}

class Desk
{
    private int entered;

    public int Enter(int day)
    {
        entered++;
        TideTable.Get().Raise(1);
        return TideTable.Get().Height(day) + entered;
    }
}

static class Harbour
{
    static void Main()
    {
        var desk = new Desk();
        Console.WriteLine(desk.Enter(1) + desk.Enter(2));
    }
}
