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

class Pilot
{
    private readonly string name;

    public Pilot(string name)
    {
        this.name = name;
    }

    public bool MayEnter(int draught, int day)
    {
        Tides.Raise();
        return Tides.Height(day) > draught && name != "";
    }
}

static class Harbour
{
    static void Main()
    {
        Console.WriteLine(new Pilot("first").MayEnter(3, 1));
    }
}
