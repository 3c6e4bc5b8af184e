// A class that only has statics keeps an object of another class: the slot's own type is written.
using System.Text;
using System.Threading;

static class SignalTexts
{
    private static StringBuilder buffer = null;

    public static StringBuilder Buffer
    {
        get
        {
            if (buffer == null) buffer = new StringBuilder(8, 80);
            return buffer;
        }
    }
}

class SignalMast
{
    public int Hoist(string signal)
    {
        return SignalTexts.Buffer.Append(signal).Length;
    }

    public void Open()
    {
        new Thread(() => Hoist("N")).Start();
        new Thread(() => Hoist("C")).Start();
    }
}
