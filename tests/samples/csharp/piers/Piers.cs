namespace Piers;

// There is only one, and the class sees to it.
class Anchor  // near: single.meant-single single.subclassable  // entity: singleton Anchor lazy none
{
    private static Anchor anchorage;
    private int chain = 0;

    private Anchor()  // near: single.open-constructor
    {
        if (Anchor.anchorage != null)
        {
            throw new InvalidOperationException("the anchor is there");
        }
    }

    public static Anchor Get()
    {
        if (Anchor.anchorage == null)
        {
            Anchor.anchorage = new Anchor();  // near: single.second-creation  // finding: thread.unguarded-creation
        }
        return Anchor.anchorage;  // near: single.may-return-nothing
    }

    public void Lower()
    {
        this.chain = 1;
    }
}

class Boatswain
{
    private Anchor own;
    private List<string> notes = new List<string>();  // near: coupling.fixed-collaborator

    public Boatswain(Anchor anchor)  // near: coupling.hidden-dependency coupling.fixed-collaborator
    {
        this.own = anchor;
    }

    public void Moor()
    {
        this.own.Lower();  // near: coupling.hidden-dependency
    }
}

// One is handed out, and a helper makes another.
class Capstan  // entity: singleton Capstan lazy none  // finding: single.open-constructor
{
    private static Capstan one;
    private int turns = 0;

    public static Capstan Get()
    {
        if (Capstan.one == null)
        {
            Capstan.one = new Capstan();  // finding: thread.unguarded-creation
        }
        return Capstan.one;
    }

    public void Turn()
    {
        this.turns = 1;
    }
}

static partial class Works
{
    public static Capstan SpareCapstan()
    {
        return new Capstan();  // finding: single.second-creation
    }
}

// Hands out nothing while the harbour is closed; near miss: it says so by throwing.
class Beam  // entity: singleton Beam lazy none  // finding: single.open-constructor
{
    private static Beam one;
    private int lit = 0;

    public static Beam Get(bool open)
    {
        if (!open)
        {
            return null;  // finding: single.may-return-nothing
        }
        if (Beam.one == null)
        {
            Beam.one = new Beam();  // finding: thread.unguarded-creation
        }
        return Beam.one;
    }

    public void Light()
    {
        this.lit = 1;
    }
}

// Put in another's place by whoever asks for it.
class Flare
{
    private int lit = 0;

    public void Light()
    {
        this.lit = 1;
    }

    public static Flare flareNow;  // entity: shared-instance flareNow lazy none
    public static readonly Flare torchNow = new Flare();  // near: single.replaceable init.eager-heavy  // entity: shared-instance torchNow eager language
    public static Flare wickNow;  // entity: shared-instance wickNow lazy none  // finding: single.replaceable
    public static readonly Flare bench = new Flare();  // entity: shared-instance bench eager language
    public static readonly Flare stool = new Flare();  // entity: shared-instance stool eager language
    public static readonly Flare chair = new Flare();  // entity: shared-instance chair eager language
}

class Rocket : Flare

static partial class Works
{
    public static Flare FetchFlare()
    {
        if (Flare.flareNow == null)
        {
            Flare.flareNow = new Flare();  // finding: thread.unguarded-creation
    }
    return Flare.flareNow;
    }
}

static partial class Works
{
    public static void UseRockets()
    {
        Flare.flareNow = new Rocket();  // finding: single.replaceable
    }
}

static partial class Works

static partial class Works
{
    public static Flare FetchWick()
    {
        if (Flare.wickNow == null)
        {
            Flare.wickNow = new Flare();  // near: single.replaceable  // finding: thread.unguarded-creation
    }
    return Flare.wickNow;
    }
}

class Tackle  // entity: singleton Tackle eager language  // finding: single.open-constructor
{
    private int blocks = 2;

    public void Pull()  // near: coupling.cycle
    {
        this.blocks = 3;
    }

    public void Strain(int tons)
    {
        if (tons < 0)
        {
            throw new InvalidOperationException("tons");
        }
        this.blocks = tons;
    }

    public static readonly Tackle tackle = new Tackle();  // near: init.cycle init.reentrant init.may-throw init.eager-heavy
}

class Davit  // entity: singleton Davit eager language
{
    private int boats;

    public Davit()  // near: init.cycle init.reentrant init.reads-environment  // finding: single.open-constructor
    {
        this.boats = 0;
    }

    public void Lower()
    {
        Tackle.tackle.Pull();  // near: coupling.cycle  // near: coupling.hidden-dependency
        this.boats = 1;
    }

    public static readonly Davit davit = new Davit();  // near: init.may-throw init.order-within-class
}

// Asks for itself through a helper.
class LogBook  // entity: singleton LogBook lazy none
{
    private static LogBook one;
    private int lines = 0;

    public LogBook()  // finding: single.open-constructor
    {
        Works.Greet();  // finding: coupling.cycle
    }

    public static LogBook Book()
    {
        if (LogBook.one == null)
        {
            LogBook.one = new LogBook();  // finding: thread.unguarded-creation
        }
        return LogBook.one;
    }

    public void Write()
    {
        this.lines = 1;
    }
}

static partial class Works
{
    public static void Greet()
    {
        LogBook.Book().Write();  // finding: init.reentrant  // near: coupling.hidden-dependency
    }
}

// Reads the environment while it is made; near misses: asked later, or handed in.
class Flags  // entity: singleton Flags eager language
{
    private string home;

    public Flags()  // finding: single.open-constructor
    {
        this.home = Environment.GetEnvironmentVariable("HARBOUR");  // finding: init.reads-environment
    }

    public void Rename(string name)
    {
        this.home = name;
    }

    public static readonly Flags flags = new Flags();
}

class Pennants  // entity: singleton Pennants eager language
{
    private string home;

    public Pennants(string home)  // finding: single.open-constructor
    {
        this.home = home;
    }

    public void Reload()
    {
        this.home = Environment.GetEnvironmentVariable("HARBOUR");  // near: init.reads-environment
    }

    public static readonly Pennants pennants = new Pennants("pier");
}

// Reads a file while the program is loaded.
class Almanac  // entity: singleton Almanac eager language
{
    private List<string> rows;

    public Almanac()  // finding: single.open-constructor
    {
        this.rows = new List<string>(File.ReadAllLines("almanac"));
    }

    public void Drop()
    {
        this.rows.RemoveAt(0);
    }

    public static readonly Almanac almanac = new Almanac();  // finding: init.eager-heavy
}

// Throws where it stands.
class Scale  // entity: singleton Scale eager language
{
    private int tons;

    public Scale()  // finding: single.open-constructor
    {
        this.tons = File.Exists("scale") ? 1 : 0;
        if (this.tons == 0)
        {
            throw new InvalidOperationException("no scale");
        }
    }

    public void Load()
    {
        this.tons = 2;
    }

    public static readonly Scale scale = new Scale();  // near: init.may-throw
}

// Needs what stands further down; near miss: asked for when it is there.
class Stairs  // entity: singleton Stairs eager language
{
    private int steps;

    public Stairs()  // finding: single.open-constructor
    {
        this.steps = Stairs.heights["stairs"];
    }

    public void Climb()
    {
        this.steps = Stairs.heights["stairs"];  // near: init.order-within-class
    }

    public static readonly Stairs stairs = new Stairs();  // finding: init.order-within-class
    public static readonly Dictionary<string, int> heights = new Dictionary<string, int>();  // entity: static-field heights eager language
}

static partial class Works
{
    public static void RaiseStairs(int by)
    {
        Stairs.heights["stairs"] = by;
    }
}

static partial class Works

// Works only after it was set up; near misses: it sees to it itself.
class Gauge
{
    public int Read()
    {
        return 3;
    }
}

class Locks  // entity: singleton Locks eager language  // finding: single.open-constructor
{
    private Gauge gauge;
    private int level = 0;

    public void SetUp(Gauge gauge)
    {
        this.gauge = gauge;
    }

    public void Fill()
    {
        this.level = this.gauge.Read();
    }

    public static readonly Locks locks = new Locks();
}

class Basin  // entity: singleton Basin eager language  // finding: single.open-constructor
{
    private Gauge gauge;
    private int level = 0;

    public void SetUp(Gauge gauge)
    {
        this.gauge = gauge;
    }

    public void Fill()  // near: init.needs-setup
    {
        if (this.gauge == null)
        {
            throw new InvalidOperationException("no gauge");
        }
        this.level = this.gauge.Read();
    }

    public void Empty()  // near: init.needs-setup
    {
        this.level = this.gauge == null ? 0 : this.gauge.Read();
    }

    public static readonly Basin basin = new Basin();
}

static partial class Works
{
    public static void Flood(bool deep)
    {
        Locks.locks.Fill();  // finding: init.needs-setup  // near: coupling.hidden-dependency
        if (deep)
        {
            Locks.locks.SetUp(new Gauge());
    }
    Basin.basin.SetUp(new Gauge());  // near: coupling.hidden-dependency
    Basin.basin.Fill();
    Basin.basin.Empty();
    }
}

// The failure goes nowhere; near misses: it is told, or handed on.
class Barometer  // entity: singleton Barometer lazy none
{
    private int pressure = 0;

    public Barometer()  // finding: single.open-constructor
    {
        try
        {
            this.pressure = File.ReadAllText("barometer").Length;
        }
        catch (Exception)  // finding: init.failure-swallowed
        {
        }
    }

    public void Fall()
    {
        this.pressure = 1;
    }

    public static Barometer barometerNow;  // finding: single.replaceable
}

static partial class Works
{
    public static Barometer FetchBarometer()
    {
        if (Barometer.barometerNow == null)
        {
            Barometer.barometerNow = new Barometer();  // finding: thread.unguarded-creation
    }
    return Barometer.barometerNow;
    }
}

class Hygrometer  // entity: singleton Hygrometer lazy none
{
    private int damp = 0;

    public Hygrometer()  // finding: single.open-constructor
    {
        try
        {
            this.damp = File.ReadAllText("hygrometer").Length;
        }
        catch (Exception error)
        {
            throw new InvalidOperationException("no hygrometer");  // near: init.failure-swallowed
        }
    }

    public void Rise()
    {
        this.damp = 1;
    }

    public static Hygrometer hygrometerNow;  // finding: single.replaceable
}

class Anemometer  // entity: singleton Anemometer lazy none
{
    private int wind = 0;

    public Anemometer()  // finding: single.open-constructor
    {
        try
        {
            this.wind = File.ReadAllText("anemometer").Length;
        }
        catch (Exception error)
        {
            Console.Error.WriteLine(error);  // near: init.failure-swallowed
            throw;
        }
    }

    public void Blow()
    {
        this.wind = 1;
    }

    public static Anemometer anemometerNow;  // finding: single.replaceable
}

static partial class Works
{
    public static Hygrometer FetchHygrometer()
    {
        if (Hygrometer.hygrometerNow == null)
        {
            Hygrometer.hygrometerNow = new Hygrometer();  // near: init.eager-heavy  // finding: thread.unguarded-creation init.may-throw
    }
    return Hygrometer.hygrometerNow;
    }
}

static partial class Works
{
    public static Anemometer FetchAnemometer()
    {
        if (Anemometer.anemometerNow == null)
        {
            Anemometer.anemometerNow = new Anemometer();  // finding: thread.unguarded-creation init.may-throw
    }
    return Anemometer.anemometerNow;
    }
}

// Others run while it is made; near misses: nothing runs in between, or what is promised is kept.
class Radio
{
    private int channel = 16;

    public void Tune(int channel)
    {
        this.channel = channel;
    }

    public static Radio radioNow;  // entity: shared-instance radioNow lazy none  // finding: single.replaceable
    public static Radio sonarNow;  // entity: shared-instance sonarNow lazy none  // finding: single.replaceable
    public static Task<Radio> radarNow;  // entity: static-field radarNow lazy none
}

static partial class Works
{
    public static async Task<Radio> FetchRadio()
    {
        if (Radio.radioNow == null)
        {
            var channel = await AskForChannel();  // finding: thread.await-gap
            Radio.radioNow = new Radio();  // finding: thread.unguarded-creation
            Radio.radioNow.Tune(channel);
    }
    return Radio.radioNow;
    }
}

static partial class Works
{
    public static async Task<Radio> FetchSonar()
    {
        var channel = await AskForChannel();  // near: thread.await-gap
        if (Radio.sonarNow == null)
        {
            Radio.sonarNow = new Radio();  // finding: thread.unguarded-creation
            Radio.sonarNow.Tune(channel);
    }
    return Radio.sonarNow;
    }
}

static partial class Works
{
    public static async Task<Radio> FetchRadar()
    {
        if (Radio.radarNow == null)
        {
            Radio.radarNow = AskForRadar();  // finding: thread.unguarded-creation
    }
    return await Radio.radarNow;  // near: thread.await-gap
    }
}

static partial class Works
{
    public static async Task<Radio> AskForRadar()
    {
        await AskForChannel();
        return new Radio();
    }
}

static partial class Works
{
    public static async Task<int> AskForChannel()
    {
        return 16;
    }
}

// Opens what nothing closes; near misses: closed in the same function, or at the end.
class Soundings  // entity: singleton Soundings eager language  // finding: single.open-constructor
{
    private FileStream file;
    private int read = 0;

    public void Open(string name)
    {
        this.file = File.OpenRead(name);  // finding: lifetime.never-released
    }

    public void Next()
    {
        this.read = this.file == null ? 0 : this.file.ReadByte();
    }

    public static readonly Soundings soundings = new Soundings();
}

// Keeps the caller's object; near misses: only what it says, or for a while.
class Porter  // entity: singleton Porter eager language  // finding: single.open-constructor
{
    private Caller caller;
    private string last = "";
    private List<string> seen = new List<string>();

    public void Keep(Caller caller)
    {
        this.caller = caller;
    }

    public void Note(Caller caller)
    {
        this.last = caller.ship;
    }

    public void Write(Caller caller)
    {
        this.seen.Add(caller.ship);  // near: lifetime.grows-forever
        if (this.seen.Count > 9)
        {
            this.seen.RemoveAt(0);
        }
    }

    public static readonly Porter porter = new Porter();
}

class Caller
{
    public string ship;

    public Caller(string ship)
    {
        this.ship = ship;
    }

    public void Enter()
    {
        Porter.porter.Keep(this);  // finding: coupling.hidden-dependency lifetime.captured-short-lived
    }

    public void PassBy()
    {
        Porter.porter.Note(this);  // near: lifetime.captured-short-lived
        Porter.porter.Write(this);  // near: lifetime.captured-short-lived
    }
}

static partial class Works
{
    public static void Receive(string ship)
    {
        var caller = new Caller(ship);
        caller.Enter();
        caller.PassBy();
    }
}

static partial class Works

static partial class Works

// Passed on by four; near misses: used on the way, or made there.
class Papers
{
    public bool InOrder()
    {
        return true;
    }
}

static partial class Works
{
    public static bool Stamp(Papers papers)
    {
        return papers.InOrder();
    }
}

static partial class Works
{
    public static bool Clerk(Papers papers)
    {
        return Stamp(papers);
    }
}

static partial class Works
{
    public static bool Counter(Papers papers)
    {
        return Clerk(papers);
    }
}

static partial class Works
{
    public static bool Entrance(Papers papers)
    {
        return Counter(papers);
    }
}

static partial class Works
{
    public static bool Door(Papers papers)
    {
        return Entrance(papers);
    }
}

static partial class Works

static partial class Works
{
    public static bool Windowed()  // near: coupling.long-handoff
    {
        return Counter(new Papers());
    }
}

// One reached through another; near misses: a part of the object, and the other one asked directly.
class Buoys  // entity: singleton Buoys eager language  // finding: single.open-constructor
{
    private int lit = 0;

    public void Light()
    {
        this.lit = 1;
    }

    public static readonly Buoys buoys = new Buoys();
}

class Depths
{
    private int least = 0;

    public void Measure()
    {
        this.least = 4;
    }
}

class Channel  // entity: singleton Channel lazy none  // finding: single.open-constructor
{
    private static Channel one;
    private Depths inner = new Depths();

    public static Channel Get()
    {
        if (Channel.one == null)
        {
            Channel.one = new Channel();  // finding: thread.unguarded-creation
        }
        return Channel.one;
    }

    public Capstan Capstan()
    {
        return Piers.Capstan.Get();
    }

    public Depths Depths()
    {
        return this.inner;
    }
}

class Pilot
{
    public void Steer()
    {
        Channel.Get().Capstan().Turn();  // finding: coupling.hidden-dependency coupling.chained-access
        Channel.Get().Depths().Measure();  // near: coupling.chained-access
    }

    public void Dark()
    {
        Buoys.buoys.Light();  // near: coupling.chained-access  // finding: coupling.hidden-dependency
    }
}

// Reached from six places; near miss: two.
class Gong
{
    private int struck = 0;

    public void Strike()
    {
        this.struck = 1;
    }

    public static readonly Gong gong = new Gong();  // entity: shared-instance gong eager language
    public static readonly Gong whistle = new Gong();  // near: coupling.wide-reach  // entity: shared-instance whistle eager language
}

class Pier1
{
    public void Fog()
    {
        Gong.gong.Strike();
        Gong.whistle.Strike();
    }
}

// Begins the day for all; near miss: what is handed in is no reach.
class Morning
{
    public void Begin()  // finding: coupling.crowded-startup
    {
        Gong.gong.Strike();
        Gong.whistle.Strike();
        Buoys.buoys.Light();
        Soundings.soundings.Open("morning");
        Davit.davit.Lower();  // near: coupling.hidden-dependency
        Flags.flags.Rename("morning");
        Pennants.pennants.Reload();  // near: coupling.hidden-dependency
    }

    public void Half(Gong bell, Buoys light, Soundings line, Davit boat, Flags flag)  // near: coupling.crowded-startup
    {
        bell.Strike();
        light.Light();
        line.Open("half");
        boat.Lower();
        flag.Rename("half");
    }
}

// Only the first one's name counts; near miss: it counts each time.
class Plate  // entity: singleton Plate lazy none
{
    private static Plate one;
    private string name;

    public Plate(string name, int size)  // finding: single.open-constructor
    {
        this.name = name + size;
    }

    public static Plate Get(string name, int size)  // finding: init.arguments-ignored
    {
        if (Plate.one == null)
        {
            Plate.one = new Plate(name, size);  // finding: thread.unguarded-creation
        }
        return Plate.one;
    }

    public void Rename(string name)
    {
        this.name = name;
    }
}

class Sign  // entity: singleton Sign lazy none
{
    private static Sign one;
    private string name;

    public Sign(string name)  // finding: single.open-constructor
    {
        this.name = name;
    }

    public static Sign Get(string name)  // near: init.arguments-ignored
    {
        if (Sign.one == null)
        {
            Sign.one = new Sign(name);  // finding: thread.unguarded-creation
        }
        Sign.one.Rename(name);
        return Sign.one;
    }

    public void Rename(string name)
    {
        this.name = name;
    }
}

// One slot for a family; near miss: one for each of it.
class Raft  // entity: singleton Raft lazy none  // finding: single.open-constructor
{
    protected static Raft one;
    private int logs = 4;

    public static Raft Get()
    {
        if (Raft.one == null)
        {
            Raft.one = new Raft();  // finding: thread.unguarded-creation single.slot-shared-by-subclasses
        }
        return Raft.one;
    }

    public void Sink()
    {
        this.logs = 0;
    }
}

class WideRaft : Raft
{
    public static void Open()
    {
        one = new WideRaft();  // finding: single.replaceable
    }

    public void Load()
    {
        this.Sink();
    }
}

class Punt  // entity: singleton Punt lazy none  // finding: single.open-constructor
{
    protected static Punt one;
    private int poles = 1;

    public static Punt Get()
    {
        if (Punt.one == null)
        {
            Punt.one = new Punt();  // near: single.slot-shared-by-subclasses  // finding: thread.unguarded-creation
        }
        return Punt.one;
    }

    public void Push()
    {
        this.poles = 0;
    }
}

class Ferry  // entity: singleton Ferry lazy none
{
    private static Ferry one;
    private int trips = 0;

    private Ferry()  // near: single.subclassable
    {
        this.trips = 1;
    }

    public static Ferry Get()
    {
        if (Ferry.one == null)
        {
            Ferry.one = new Ferry();  // near: single.slot-shared-by-subclasses  // finding: thread.unguarded-creation
        }
        return Ferry.one;
    }

    public void Cross()
    {
        this.trips = 2;
    }
}

static partial class Works
{
    public static void Open()  // finding: coupling.crowded-startup
    {
        SpareCapstan().Turn();
        Capstan.Get().Turn();
        FetchFlare().Light();
        UseRockets();
        Plate.Get("a", 1).Rename("b");
        Plate.Get("c", 2);
        Sign.Get("a");  // near: coupling.hidden-dependency
        WideRaft.Get().Sink();  // near: coupling.hidden-dependency
        Raft.Get().Sink();
        Punt.Get().Push();  // near: coupling.hidden-dependency
        Ferry.Get().Cross();  // near: coupling.hidden-dependency
        new Boatswain(Anchor.Get()).Moor();  // near: coupling.hidden-dependency
        Receive("Heron");
        new Morning().Begin();
        Almanac.almanac.Drop();  // near: coupling.hidden-dependency
        Scale.scale.Load();  // near: coupling.hidden-dependency
        PilotFees.fees.Enter(2);
        Flood(true);
    }
}

// Threads: what is sound, beside what is not.
sealed class Windows  // near: single.subclassable  // entity: singleton Windows lazy double-check
{
    private static volatile Windows one;
    private static readonly object gate = new object();  // harmless: gate
    private readonly List<string> panes = new List<string>();

    private Windows()  // near: single.subclassable single.open-constructor
    {
        for (int i = 0; i < 9; i++)
        {
            panes.Add("pane " + i);
        }
    }

    public static Windows Get()
    {
        if (one == null)
        {
            lock (gate)  // near: thread.wrong-lock thread.lock-every-access init.lazy-needless
            {
                if (one == null)  // near: thread.double-check-incomplete
                {
                    one = new Windows();  // near: thread.double-check-unsound thread.unguarded-creation
                }
            }
        }
        return one;
    }

    public string Take()
    {
        lock (gate)
        {
            string pane = panes[0];
            panes.RemoveAt(0);  // near: thread.mixed-guard thread.check-then-act
            return pane;
        }
    }
}
