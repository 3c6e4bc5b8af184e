using System;

static class Tides
{
    private static int first = 4;

    public static int Height(int day) => first + day;

    public static void Raise(int by = 1)
    {
        first += by;
    }

    public static void Forget()
    {
        first = 0;
    }
}

class TidesWrapper
{
    public virtual int Height(int day)
    {
        return Tides.Height(day);
    }

    public virtual void Raise(int by = 1)
    {
        Tides.Raise(by);
    }
}

class Pilot
{
    private readonly TidesWrapper tidesWrapper;
    private readonly string name;

    public Pilot(string name, TidesWrapper tidesWrapper = null)
    {
        this.tidesWrapper = tidesWrapper ?? throw new System.ArgumentNullException(nameof(tidesWrapper));
        this.name = name;
    }

    public bool MayEnter(int draught, int day)
    {
        tidesWrapper.Raise();
        return tidesWrapper.Height(day) > draught && name != "";
    }
}

static class Harbour
{
    static void Main()
    {
        Console.WriteLine(new Pilot("first", tidesWrapper: new TidesWrapper()).MayEnter(3, 1));
    }
}
