using System.IO;

class TideFile
{
    private readonly string path;
    public TideFile(string path) { this.path = path; }
    public string Read() { return File.ReadAllText(path); }
}

class Desk
{
    private readonly TideFile tides;
    private readonly string port;

    public Desk(string port)
    {
        this.port = port;
        tides = new TideFile(port + ".txt");
    }

    public int Height() { return tides.Read().Length; }
}

class Board
{
    private readonly TideFile tides = new TideFile("board.txt");
    private int rows;

    public Board(int rows)
    {
        this.rows = rows;
    }

    public int Width() { return tides.Read().Length + rows; }
}

class Program
{
    static void Main(string[] args)
    {
        File.WriteAllText("north.txt", "four");
        File.WriteAllText("board.txt", "six ty");
        System.Console.WriteLine(new Desk("north").Height() + new Board(1).Width());
    }
}
