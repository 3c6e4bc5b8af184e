namespace Quays
{
    // One is handed out, another is made beside it.
    sealed class Beacon  // entity: singleton Beacon eager language
    {
        private static readonly Beacon one = new Beacon();
        private int flashes;

        public Beacon()  // finding: single.open-constructor
        {
        }

        public static Beacon One => one;

        public void Flash()
        {
            flashes = 1;
        }
    }

    class Pier
    {
        public void Light()
        {
            var second = new Beacon();  // finding: single.second-creation
            second.Flash();
        }
    }

    // Near miss: nobody else can make one.
    sealed class Lantern  // entity: singleton Lantern eager language
    {
        private static readonly Lantern one = new Lantern();
        private int lit;

        private Lantern()  // near: single.open-constructor
        {
        }

        public static Lantern One => one;

        public void Light()
        {
            lit = 1;
        }
    }

    // Another takes its place.
    class Foghorn  // entity: singleton Foghorn eager language
    {
        private static Foghorn horn = new Foghorn();
        private int blown;

        internal Foghorn()  // finding: single.open-constructor
        {
        }

        public static Foghorn Horn()
        {
            return horn;
        }

        public static void Replace(Foghorn other)
        {
            horn = other;  // finding: single.replaceable
        }

        public void Blow()
        {
            blown = 1;
        }
    }

    sealed class LoudHorn : Foghorn
    {
    }

    class Chief
    {
        public void MakeItLoud()
        {
            Foghorn.Replace(new LoudHorn());
        }
    }

    // One slot for a family of classes.
    class Berth  // entity: singleton Berth lazy lock
    {
        protected static Berth berth;
        private static readonly object gate = new object();  // harmless: gate
        private int ships;

        protected Berth()  // finding: single.subclassable
        {
        }

        public static Berth Get()
        {
            lock (gate)
            {
                if (berth == null)
                {
                    berth = new Berth();  // finding: single.slot-shared-by-subclasses init.lazy-needless
                }
                return berth;
            }
        }

        public void Moor()
        {
            ships = 1;
        }
    }

    class DeepBerth : Berth
    {
        public static void Open()
        {
            berth = new DeepBerth();  // finding: coupling.hidden-dependency single.replaceable
        }
    }

    // Only the first caller's name counts; near miss: kept by name.
    sealed class Plate  // entity: singleton Plate lazy lock
    {
        private static Plate plate;
        private static readonly object gate = new object();  // harmless: gate
        private string name;

        private Plate(string name)
        {
            this.name = name;
        }

        public static Plate Get(string name)  // finding: init.arguments-ignored
        {
            lock (gate)
            {
                if (plate == null)
                {
                    plate = new Plate(name);
                }
                return plate;
            }
        }

        public void Rename(string newName)
        {
            name = newName;
        }
    }

    // Others run while it is made; near miss: nothing runs in between.
    sealed class Radio
    {
        private static Radio radio;  // entity: shared-instance radio lazy none
        private static Radio sonar;  // entity: shared-instance sonar lazy none
        private int channel;

        private Radio()
        {
        }

        public static async Task<Radio> Get()
        {
            if (radio == null)
            {
                await Task.Delay(1);  // finding: thread.await-gap
                radio = new Radio();  // finding: thread.unguarded-creation
            }
            return radio;
        }

        public static async Task<Radio> Sonar()
        {
            await Task.Delay(1);  // near: thread.await-gap
            if (sonar == null)
            {
                sonar = new Radio();  // finding: thread.unguarded-creation
            }
            return sonar;
        }

        public void Tune(int newChannel)
        {
            channel = newChannel;
        }
    }

    // A lock for each look, fetched in a loop; near miss: fetched once.
    sealed class Tariff  // entity: singleton Tariff lazy lock
    {
        private static Tariff tariff;
        private static readonly object gate = new object();  // harmless: gate
        private readonly List<string> rows = new List<string>();

        private Tariff()
        {
            for (int row = 0; row < 3; row++)
            {
                rows.Add("row");
            }
        }

        public static Tariff Get()
        {
            lock (gate)  // finding: thread.lock-every-access
            {
                if (tariff == null)
                {
                    tariff = new Tariff();
                }
                return tariff;
            }
        }

        public void Drop(string row)
        {
            lock (gate)
            {
                rows.Remove(row);
            }
        }
    }

    sealed class Rates  // entity: singleton Rates lazy lock
    {
        private static Rates rates;
        private static readonly object gate = new object();  // harmless: gate
        private readonly List<string> rows = new List<string>();

        private Rates()
        {
            for (int row = 0; row < 3; row++)
            {
                rows.Add("rate");
            }
        }

        public static Rates Get()
        {
            lock (gate)  // near: thread.lock-every-access
            {
                if (rates == null)
                {
                    rates = new Rates();
                }
                return rates;
            }
        }

        public void Drop(string row)
        {
            lock (gate)
            {
                rows.Remove(row);
            }
        }
    }

    class Cashier
    {
        public void Month()
        {
            for (int day = 0; day < 30; day++)
            {
                Tariff.Get().Drop("row");
            }
        }

        public void Year()
        {
            Rates rates = Rates.Get();
            for (int day = 0; day < 30; day++)
            {
                rates.Drop("rate");
            }
        }
    }

    // Opens what nothing closes; near miss: closed at its end.
    sealed class EchoLog  // entity: singleton EchoLog eager language
    {
        private static readonly EchoLog log = new EchoLog();
        private FileStream file;

        private EchoLog()
        {
        }

        public static EchoLog Log => log;

        public void Begin()
        {
            file = new FileStream("echoes", FileMode.Open);  // finding: lifetime.never-released
        }

        public int Next()
        {
            return file == null ? 0 : file.ReadByte();
        }
    }

    sealed class WaveLog : IDisposable  // entity: singleton WaveLog eager language
    {
        private static readonly WaveLog log = new WaveLog();
        private FileStream file;

        private WaveLog()
        {
        }

        public static WaveLog Log => log;

        public void Begin()
        {
            file = new FileStream("waves", FileMode.Open);  // near: lifetime.never-released
        }

        public int Next()
        {
            return file == null ? 0 : file.ReadByte();
        }

        public void Dispose()
        {
            file.Dispose();
        }
    }

    // One object reached through another.
    sealed class Buoyage  // entity: singleton Buoyage eager language
    {
        private static readonly Buoyage buoyage = new Buoyage();
        private int laid;

        private Buoyage()
        {
        }

        public static Buoyage Get()
        {
            return buoyage;
        }

        public void Lay()
        {
            laid = 1;
        }
    }

    sealed class Fairway  // entity: singleton Fairway eager language
    {
        private static readonly Fairway fairway = new Fairway();
        private int depth;

        private Fairway()
        {
        }

        public static Fairway Get()
        {
            return fairway;
        }

        public Buoyage Marks()
        {
            return Buoyage.Get();
        }

        public void Dredge()
        {
            depth = 1;
        }
    }

    class Tender
    {
        public void Work()
        {
            Fairway.Get().Marks().Lay();  // finding: coupling.chained-access coupling.hidden-dependency
            Fairway.Get().Dredge();  // near: coupling.chained-access
        }
    }

    // Reached from everywhere; near miss: four classes.
    sealed class Siren  // entity: singleton Siren eager language // finding: coupling.wide-reach
    {
        private static readonly Siren siren = new Siren();
        private int sounded;

        private Siren()
        {
        }

        public static Siren Get()
        {
            return siren;
        }

        public void Sound()
        {
            sounded = 1;
        }
    }

    sealed class Bell  // near: coupling.wide-reach  // entity: singleton Bell eager language
    {
        private static readonly Bell bell = new Bell();
        private int rung;

        private Bell()
        {
        }

        public static Bell Get()
        {
            return bell;
        }

        public void Ring()
        {
            rung = 1;
        }
    }

    class NorthQuay
    {
        public void Fog()
        {
            Siren.Get().Sound();  // finding: coupling.hidden-dependency
            Bell.Get().Ring();  // finding: coupling.hidden-dependency
        }
    }

    class SouthQuay
    {
        public void Fog()
        {
            Siren.Get().Sound();
            Bell.Get().Ring();
        }
    }

    class EastQuay
    {
        public void Fog()
        {
            Siren.Get().Sound();
            Bell.Get().Ring();
        }
    }

    class WestQuay
    {
        public void Fog()
        {
            Siren.Get().Sound();
        }
    }

    class InnerQuay
    {
        public void Fog()
        {
            Siren.Get().Sound();
        }
    }

    // Starts them all; near miss: only five.
    class Opening
    {
        public void Open()  // finding: coupling.crowded-startup
        {
            Beacon.One.Flash();  // finding: coupling.hidden-dependency
            Siren.Get().Sound();
            Bell.Get().Ring();
            WaveLog.Log.Begin();  // finding: coupling.hidden-dependency
            EchoLog.Log.Begin();  // finding: coupling.hidden-dependency
            Berth.Get().Moor();
        }

        public void Half()  // near: coupling.crowded-startup
        {
            Siren.Get().Sound();
            Bell.Get().Ring();
            Lantern.One.Light();  // finding: coupling.hidden-dependency
            Plate.Get("north").Rename("N");
            Plate.Get("south").Rename("S");
        }
    }
}
