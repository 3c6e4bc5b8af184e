// A class that only has statics keeps an object of another class: the slot's own type is written.
using System.Text;
using System.Threading;

static class SignalTexts
{
    private static UTF8Encoding encoding = null;

    public static UTF8Encoding Encoding
    {
        get
        {
            if (encoding == null) encoding = new UTF8Encoding(false, false);
            return encoding;
        }
    }
}

class SignalMast
{
    public byte[] Hoist(string signal)
    {
        return SignalTexts.Encoding.GetBytes(signal);
    }

    public void Open()
    {
        new Thread(() => Hoist("N")).Start();
        new Thread(() => Hoist("C")).Start();
    }
}
