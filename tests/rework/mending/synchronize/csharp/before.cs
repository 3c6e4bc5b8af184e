using System.Threading.Tasks;

public static class Dues
{
    private static int total;

    public static void Add(int coins) { total = total + coins; }

    public static void Clear()
    {
        total = 0;
    }
}

public static class Quay
{
    public static void Unload()
    {
        Task.Run(() => Dues.Add(3));
        Dues.Add(4);
        Dues.Clear();
    }
}
