using System;

sealed class TideTable
{
    private int first;

    internal TideTable(int first)
    {
        this.first = first;
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
    private TideTable tideTable = new TideTable(4);
    private int entered;

    public int Enter(int day)
    {
        entered++;
        tideTable.Raise(1);
        return tideTable.Height(day) + entered;
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
