// Disposing of it takes it out of the list.
using System;
using System.Collections.Generic;

sealed class SignalMast
{
    private static readonly SignalMast mast = new SignalMast();
    private readonly List<Display> displays = new List<Display>();

    private SignalMast()
    {
    }

    public static SignalMast Mast()
    {
        return mast;
    }

    public void Attach(Display display)
    {
        displays.Add(display);
    }

    public void Detach(Display display)
    {
        displays.Remove(display);
    }

    public void Raise(int signal)
    {
        foreach (Display display in displays)
        {
            display.Heard(signal);
        }
    }
}

sealed class Display : IDisposable
{
    public static int HeardAfterEnd;
    private bool open = true;

    public Display()
    {
        SignalMast.Mast().Attach(this);
    }

    public void Heard(int signal)
    {
        if (!open)
        {
            HeardAfterEnd++;
        }
    }

    public void Dispose()
    {
        open = false;
        SignalMast.Mast().Detach(this);
    }
}

static class Program
{
    static int Main()
    {
        var display = new Display();
        display.Dispose();
        SignalMast.Mast().Raise(3);
        Console.WriteLine(Display.HeardAfterEnd + " signals to closed displays");
        return Display.HeardAfterEnd == 0 ? 0 : 1;
    }
}
