using System;

class Desk
{
    private readonly int open = 1;
    private static int served = 2;

    public void Serve(int ships)
    {
        served += ships * open;
    }

    public int Served()
    {
        return Desk.served;
    }

    static void Main()
    {
        var desk = new Desk();
        desk.Serve(3);
        Console.WriteLine(desk.Served());
    }
}
