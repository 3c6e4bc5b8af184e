// Guards, starts, lists and ties of a harbour on duty.
using System;
using System.Collections.Generic;
using System.IO;
using System.Threading;

namespace Duty
{
    // Guarded when it is written, not when it is read.
    public sealed class TideBoard  // entity: singleton TideBoard eager language
    {
        private static readonly TideBoard board = new TideBoard();
        private readonly object gate = new object();
        private readonly List<string> notes = new List<string>();
        private int level;

        private TideBoard() { }

        public static TideBoard Board() { return board; }

        public void Set(int newLevel) { lock (gate) { level = newLevel; } }

        public int Level() { return level; }  // finding: thread.mixed-guard

        public void Note(string text) { lock (gate) { notes.Add(text); } }

        public void Clear() { lock (gate) { notes.Clear(); } }

        // The list itself leaves from under its lock.
        public List<string> Notes() { lock (gate) { return notes; } }  // finding: thread.leaks-internals

        // Near miss: a copy.
        public List<string> Copy() { lock (gate) { return new List<string>(notes); } }  // near: thread.leaks-internals
    }

    // A look and a change, in two steps; near miss: under one lock.
    public sealed class Moorings  // entity: singleton Moorings eager language
    {
        private static readonly Moorings moorings = new Moorings();
        private readonly Dictionary<string, string> taken = new Dictionary<string, string>();
        private readonly Dictionary<string, string> asked = new Dictionary<string, string>();

        private Moorings() { }

        public static Moorings All() { return moorings; }

        public bool Take(string berth, string ship)
        {
            if (taken.ContainsKey(berth)) return false;  // finding: thread.check-then-act
            taken.Add(berth, ship);  // finding: thread.unguarded-state
            return true;
        }

        public void Leave(string berth)
        {
            if (taken.ContainsKey(berth))  // finding: thread.check-then-act
            {
                taken.Remove(berth);
            }
        }

        public void Ask(string berth, string ship)
        {
            lock (asked)
            {
                if (!asked.ContainsKey(berth)) asked.Add(berth, ship);
            }
        }

        public void Answer(string berth)
        {
            lock (asked) { asked.Remove(berth); }
        }
    }

    // A thread is started on an object that is not complete.
    public class EchoSounder
    {
        private int step;

        public EchoSounder()
        {
            new Thread(Turn).Start();  // finding: thread.escaping-this
            step = 2;
        }

        private void Turn() { step = 3; }
    }

    // Near miss: the thread is the last thing.
    public class FogBell
    {
        private int strokes;

        public FogBell()
        {
            strokes = 3;
            new Thread(Ring).Start();  // near: thread.escaping-this
        }

        private void Ring() { strokes = 1; }
    }

    // Each needs the other while it is made.
    public sealed class Light  // entity: singleton Light eager language
    {
        private static readonly Light light = new Light();  // finding: init.cycle
        private int height;

        private Light() { height = Mole.Get().Length() / 2; }  // finding: coupling.cycle coupling.hidden-dependency

        public static Light Get() { return light; }

        public int Height() { return height++; }
    }

    public sealed class Mole  // entity: singleton Mole eager language
    {
        private static readonly Mole mole = new Mole();
        private int length;

        private Mole() { length = Light.Get().Height() * 2; }  // finding: coupling.cycle coupling.hidden-dependency

        public static Mole Get() { return mole; }

        public int Length() { return length++; }
    }

    // Asks for itself.
    public sealed class DutyBook  // entity: singleton DutyBook eager language
    {
        private static readonly DutyBook book = new DutyBook();
        private int entries;

        private DutyBook() { Begin(); }

        public static DutyBook Book() { return book; }

        private void Begin() { Book().Enter(); }  // finding: init.reentrant

        public void Enter() { entries++; }
    }

    public class Chart
    {
        public int Depth() { return 4; }
    }

    // Works only after a call, and is used before it; near miss: tests for it.
    public sealed class Plotter  // entity: singleton Plotter eager language
    {
        private static readonly Plotter plotter = new Plotter();
        private Chart chart;
        private Chart spare;

        private Plotter() { }

        public static Plotter Get() { return plotter; }

        public void Load(Chart loaded) { chart = loaded; }

        public int Depth() { return chart.Depth(); }

        public void Keep(Chart loaded) { spare = loaded; }

        public int SpareDepth() { return spare == null ? 0 : spare.Depth(); }
    }

    // Throws while it is made; the failure is dropped, and told.
    public sealed class TideTable  // entity: singleton TideTable eager language
    {
        private static readonly TideTable table = new TideTable();  // finding: init.may-throw
        private int rows;

        private TideTable() { if (rows == 0) throw new InvalidOperationException("no tides"); }

        public static TideTable Table() { return table; }

        public int Rows() { return rows++; }
    }

    public sealed class Barograph  // entity: singleton Barograph eager language
    {
        private static readonly Barograph barograph = new Barograph();  // finding: init.eager-heavy
        private int pressure;

        private Barograph()
        {
            try
            {
                pressure = File.ReadAllText("pressure").Length;
            }
            catch (IOException)
            {  // finding: init.failure-swallowed
            }
        }

        public static Barograph Get() { return barograph; }

        public int Pressure() { return pressure++; }
    }

    public sealed class Thermograph  // entity: singleton Thermograph eager language
    {
        private static readonly Thermograph thermograph = new Thermograph();  // finding: init.eager-heavy init.may-throw
        private int degrees;

        private Thermograph()
        {
            try
            {
                degrees = File.ReadAllText("degrees").Length;
            }
            catch (IOException failure)
            {
                throw new InvalidOperationException("no degrees", failure);
            }
        }

        public static Thermograph Get() { return thermograph; }

        public int Degrees() { return degrees++; }
    }

    // Reads the environment.
    public sealed class NamePlate  // entity: singleton NamePlate eager language
    {
        private static readonly NamePlate plate = new NamePlate();
        private string name;

        private NamePlate() { name = Environment.GetEnvironmentVariable("HARBOUR"); }  // finding: init.reads-environment

        public static NamePlate Plate() { return plate; }

        public void Rename(string newName) { name = newName; }
    }

    // Who is listed is told of each signal.
    public interface IKeeper
    {
        void Heard(int signal);
    }

    public sealed class SignalMast  // entity: singleton SignalMast eager language
    {
        private static readonly SignalMast mast = new SignalMast();
        private readonly List<IKeeper> keepers = new List<IKeeper>();

        private SignalMast() { }

        public static SignalMast Mast() { return mast; }

        public void Attach(IKeeper keeper) { keepers.Add(keeper); }

        public void Detach(IKeeper keeper) { keepers.Remove(keeper); }

        public void Raise(int signal)
        {
            foreach (IKeeper keeper in keepers) keeper.Heard(signal);  // finding: lifetime.notify-while-changing
        }

        // Near miss: over a copy.
        public void Lower(int signal)
        {
            foreach (IKeeper keeper in new List<IKeeper>(keepers)) keeper.Heard(signal);  // near: lifetime.notify-while-changing
        }
    }

    public class Lookout : IKeeper
    {
        private int last;

        public Lookout() { SignalMast.Mast().Attach(this); }  // finding: lifetime.dangling-subscriber coupling.hidden-dependency

        public void Heard(int signal) { last = signal; }

        public void Dispose() { last = 0; }
    }

    // Near miss: taken out at its end.
    public class Bosun : IKeeper
    {
        public Bosun() { SignalMast.Mast().Attach(this); }  // near: lifetime.dangling-subscriber

        public void Heard(int signal) { Dispose(); }

        public void Dispose() { SignalMast.Mast().Detach(this); }
    }

    // Registered by its constructor and again by a method.
    public class Steward : IKeeper
    {
        private int heard;

        public Steward() { SignalMast.Mast().Attach(this); }

        public void Wake() { SignalMast.Mast().Attach(this); }  // finding: lifetime.duplicate-subscription

        public void Heard(int signal) { heard++; }

        public void Dispose() { SignalMast.Mast().Detach(this); }
    }

    // Only ever added to, and keeps what is made for one visit.
    public sealed class Logbook  // entity: singleton Logbook eager language
    {
        private static readonly Logbook log = new Logbook();
        private readonly List<string> lines = new List<string>();
        private Visit visit;

        private Logbook() { }

        public static Logbook Log() { return log; }

        public void Write(string line) { lines.Add(line); }  // finding: lifetime.grows-forever

        public void Begin(Visit newVisit) { visit = newVisit; }
    }

    public class Visit
    {
        public void Enter() { Logbook.Log().Begin(this); }  // finding: lifetime.captured-short-lived coupling.hidden-dependency
    }

    // Used after its end; near miss: opened again.
    public sealed class Gauge  // entity: singleton Gauge eager language
    {
        private static readonly Gauge gauge = new Gauge();
        private int level;
        private bool isOpen = true;

        private Gauge() { }

        public static Gauge Get() { return gauge; }

        public void Close() { isOpen = false; }

        public void Open() { isOpen = true; }

        public int Measure() { level = level + 1; return level; }
    }

    // Circles: knows who uses it.
    public sealed class Plan  // entity: singleton Plan eager language
    {
        private static readonly Plan plan = new Plan();
        private int berths;

        private Plan() { }

        public static Plan Get() { return plan; }

        public void Change(Berther berther) { berths++; berther.Stop(); }  // finding: coupling.cycle

        public int Berths() { return berths; }
    }

    public class Berther
    {
        private int free;

        public void Arrive() { free = Plan.Get().Berths(); }  // finding: coupling.hidden-dependency

        public void Stop() { free = 0; }
    }

    // Makes its own helper that reads files; near miss: it is handed in.
    public class ChartStore
    {
        public int Depth(string place) { return File.ReadAllText(place).Length; }
    }

    public class Navigator
    {
        private readonly ChartStore store = new ChartStore();  // finding: coupling.fixed-collaborator

        public int Depth() { return store.Depth("roads"); }
    }

    public class Mate
    {
        private readonly ChartStore store;

        public Mate(ChartStore store) { this.store = store; }

        public int Depth() { return store.Depth("bay"); }
    }

    // Nothing to hand in.
    public static class Dues  // entity: static-holder Dues eager language // finding: coupling.static-only-api
    {
        private static int total;

        public static void Add(int coins) { total = total + coins; }  // finding: thread.lost-update

        public static int Total() { return total; }
    }

    public class Tollhouse
    {
        public void Pay() { Dues.Add(3); }  // finding: coupling.hidden-dependency
    }

    public class Treasurer
    {
        public int Count() { return Dues.Total(); }
    }

    /// <summary>There is only one office in the harbour.</summary>
    public class Office  // finding: single.meant-single
    {
        private int opened;

        public void Open() { opened++; }
    }

    public class Permit
    {
        public bool Valid() { return true; }
    }

    public class Day
    {
        public int Run()
        {
            new Thread(Watch).Start();
            Office first = new Office();
            Office second = new Office();
            first.Open();
            second.Open();
            int depth = Plotter.Get().Depth();  // finding: init.needs-setup coupling.hidden-dependency
            Plotter.Get().Load(new Chart());
            depth += Plotter.Get().SpareDepth();
            Visit visit = new Visit();
            visit.Enter();
            Gauge.Get().Close();  // finding: coupling.hidden-dependency
            return depth + Gauge.Get().Measure();  // finding: lifetime.used-after-teardown
        }

        public int Again()
        {
            Gauge.Get().Close();
            Gauge.Get().Open();
            return Gauge.Get().Measure();
        }

        private void Watch()
        {
            TideBoard.Board().Set(3);
            Moorings.All().Take("north", "Heron");  // finding: coupling.hidden-dependency
            Moorings.All().Leave("north");
        }

        // Passed through three functions that do nothing with it.
        private bool Check(Permit permit) { return permit.Valid(); }

        private bool Gate(Permit permit) { return Check(permit); }

        private bool Quay(Permit permit) { return Gate(permit); }

        public bool Pier(Permit permit) { return Quay(permit); }  // finding: coupling.long-handoff
    }
}
