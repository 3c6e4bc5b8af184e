// One step that nothing comes between.
using System;
using System.Threading;

sealed class CargoScale
{
    private static readonly CargoScale scale = new CargoScale();
    private int weighed;

    private CargoScale()
    {
    }

    public static CargoScale Scale()
    {
        return scale;
    }

    public void Weigh()
    {
        Interlocked.Increment(ref weighed);
    }

    public int Weighed()
    {
        return Interlocked.CompareExchange(ref weighed, 0, 0);
    }
}

static class Program
{
    static int Main()
    {
        var cranes = new Thread[4];
        for (int i = 0; i < cranes.Length; i++)
        {
            cranes[i] = new Thread(() =>
            {
                for (int crate = 0; crate < 20000; crate++)
                {
                    CargoScale.Scale().Weigh();
                }
            });
            cranes[i].Start();
        }
        foreach (Thread crane in cranes)
        {
            crane.Join();
        }
        Console.WriteLine(CargoScale.Scale().Weighed() + " of 80000 weighed");
        return CargoScale.Scale().Weighed() == 80000 ? 0 : 1;
    }
}
