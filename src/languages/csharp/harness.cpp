// Harnesses in C#: a class inside of the class in question, so that it sees what is private to it.
#include "languages/harness.h"

#include <algorithm>
#include <filesystem>
#include <pugixml.hpp>
#include <set>

#include "base/text.h"
#include "languages/csharp/csharp.h"

namespace elmcart {
namespace {

constexpr std::string_view kSupport = R"(using System;
using System.Collections.Generic;
using System.Diagnostics;
using System.IO;
using System.Runtime.CompilerServices;
using System.Threading;
using System.Threading.Tasks;

public static class ElmcartProbe
{
    struct Event
    {
        public char Kind;
        public int By;
        public long When;
        public string What;
    }

    const int Most = 1 << 14;
    static readonly List<Event> events = new List<Event>();
    static readonly Stopwatch watch = Stopwatch.StartNew();
    static readonly int gap = Number("ELMCART_PROBE_GAP", 0);
    [ThreadStatic] static int own;

    static int Number(string name, int otherwise)
    {
        int number;
        return int.TryParse(Environment.GetEnvironmentVariable(name), out number) ? number : otherwise;
    }

    public static void Note(char kind, string what)
    {
        lock (events)
        {
            if (events.Count < Most)
            {
                events.Add(new Event { Kind = kind, By = own == 0 ? 1000 + Thread.CurrentThread.ManagedThreadId : own, When = watch.ElapsedTicks * (1000000000L / Stopwatch.Frequency), What = what.Replace('\n', ' ') });
            }
        }
    }

    public static T Gap<T>(T value)
    {
        Note('i', "0");
        Thread.Sleep(gap);
        Note('o', value is int || value is long ? value.ToString() : "0");
        return value;
    }

    public static void Write()
    {
        string path = Environment.GetEnvironmentVariable("ELMCART_PROBE_EVENTS");
        using (TextWriter writer = path == null ? Console.Out : new StreamWriter(path))
        {
            lock (events)
            {
                foreach (Event e in events)
                {
                    writer.Write(e.Kind + " " + e.By + " " + e.When + " " + e.What + "\n");
                }
            }
        }
    }

    public static void Race(Func<object> call)
    {
        int count = Number("ELMCART_PROBE_THREADS", 4);
        var barrier = new Barrier(count);
        var threads = new Thread[count];
        for (int i = 0; i < count; i++)
        {
            int number = i + 1;
            threads[i] = new Thread(() =>
            {
                own = number;
                try
                {
                    barrier.SignalAndWait();
                    Note('c', "0");
                    object got = call();
                    var task = got as Task;
                    if (task != null)
                    {
                        task.Wait();
                        var result = task.GetType().GetProperty("Result");
                        got = result == null ? null : result.GetValue(task, null);
                    }
                    Note('g', got == null || got is ValueType ? "0" : RuntimeHelpers.GetHashCode(got).ToString());
                }
                catch (Exception e)
                {
                    Note('x', e.GetType() + ": " + e.Message);
                }
            });
            threads[i].Start();
        }
        foreach (Thread thread in threads)
        {
            thread.Join();
        }
        Write();
        Environment.Exit(0);
    }
}
)";

// The forms stand beside the project's own with an object of their own.
constexpr std::string_view kCost = R"(using System;
using System.Diagnostics;
using System.IO;
using System.Runtime.CompilerServices;
using System.Threading;

public static class ElmcartCost
{
    public sealed class Desk { }

    static readonly Lazy<Desk> lazy = new Lazy<Desk>(() => new Desk());
    static volatile Desk checkedDesk;
    static Desk lockedDesk;
    static readonly object making = new object();
    static readonly Desk eager = new Desk();

    sealed class Clerk
    {
        readonly Desk desk;
        public Clerk(Desk desk) { this.desk = desk; }
        [MethodImpl(MethodImplOptions.NoInlining)] public Desk Field() { return desk; }
    }

    static readonly Clerk clerk = new Clerk(eager);

    [MethodImpl(MethodImplOptions.NoInlining)] static Desk ByLazy() { return lazy.Value; }
    [MethodImpl(MethodImplOptions.NoInlining)] static Desk Eager() { return eager; }
    [MethodImpl(MethodImplOptions.NoInlining)]
    static Desk DoubleCheck()
    {
        if (checkedDesk == null)
        {
            lock (making)
            {
                if (checkedDesk == null) { checkedDesk = new Desk(); }
            }
        }
        return checkedDesk;
    }
    [MethodImpl(MethodImplOptions.NoInlining)]
    static Desk LockEachTime()
    {
        lock (making)
        {
            if (lockedDesk == null) { lockedDesk = new Desk(); }
            return lockedDesk;
        }
    }

    static int Number(string name, int otherwise)
    {
        int number;
        return int.TryParse(Environment.GetEnvironmentVariable(name), out number) ? number : otherwise;
    }

    static void Measure(TextWriter writer, string form, Action<int> loop, int rounds, int most)
    {
        int count = 1000;
        loop(count);
        while (true)
        {
            var watch = Stopwatch.StartNew();
            loop(count);
            if (watch.Elapsed.TotalMilliseconds > 4 || count > 1 << 26) { break; }
            count *= 2;
        }
        for (int threads = 1; threads <= most; threads *= 2)
        {
            for (int round = 0; round < rounds; round++)
            {
                var barrier = new Barrier(threads);
                var spent = new double[threads];
                var all = new Thread[threads];
                for (int t = 0; t < threads; t++)
                {
                    int own = t;
                    all[t] = new Thread(() =>
                    {
                        barrier.SignalAndWait();
                        var watch = Stopwatch.StartNew();
                        loop(count);
                        spent[own] = watch.Elapsed.TotalMilliseconds * 1e6;
                    });
                    all[t].Start();
                }
                double sum = 0;
                for (int t = 0; t < threads; t++) { all[t].Join(); sum += spent[t]; }
                writer.Write("t " + threads + " " + (sum / threads / count).ToString(System.Globalization.CultureInfo.InvariantCulture) + " " + form + "\n");
            }
        }
    }

    public static void Run(Action<int> own)
    {
        int rounds = Number("ELMCART_PROBE_ROUNDS", 11), most = Number("ELMCART_PROBE_THREADS", 4);
        string path = Environment.GetEnvironmentVariable("ELMCART_PROBE_EVENTS");
        using (TextWriter writer = path == null ? Console.Out : new StreamWriter(path))
        {
            var watch = Stopwatch.StartNew();
            own(1);
            writer.Write("f 1 " + (long)(watch.Elapsed.TotalMilliseconds * 1e6) + " as it is\n");
            Measure(writer, "as it is", own, rounds, most);
            Measure(writer, "Lazy<T>", count => { for (int i = 0; i < count; i++) { ByLazy(); } }, rounds, most);
            Measure(writer, "double check", count => { for (int i = 0; i < count; i++) { DoubleCheck(); } }, rounds, most);
            Measure(writer, "lock at each access", count => { for (int i = 0; i < count; i++) { LockEachTime(); } }, rounds, most);
            Measure(writer, "eager", count => { for (int i = 0; i < count; i++) { Eager(); } }, rounds, most);
            Measure(writer, "injected field", count => { for (int i = 0; i < count; i++) { clerk.Field(); } }, rounds, most);
        }
        Environment.Exit(0);
    }
}
)";

// A class inside of the one that is watched: whoever builds that builds it, too.
constexpr std::string_view kWatch = R"(
    public static class ElmcartProbe
    {
        static readonly System.Collections.Generic.Dictionary<int, long[]> passed = new System.Collections.Generic.Dictionary<int, long[]>();
        static readonly System.Collections.Generic.List<string> made = new System.Collections.Generic.List<string>();
        [System.ThreadStatic] static int own;
        static int next;
        static readonly long epoch = new System.DateTime(1970, 1, 1).Ticks;

        static ElmcartProbe()
        {
            System.AppDomain.CurrentDomain.ProcessExit += (sender, arguments) => Write();
        }

        static long Now() { return (System.DateTime.UtcNow.Ticks - epoch) * 100; }

        static int Own()
        {
            if (own == 0) { own = System.Threading.Interlocked.Increment(ref next); }
            return own;
        }

        // Arguments are evaluated from the left (ECMA-334, 12.6.2.3): the place is noted before the object is fetched.
        public static T Pass<T>(int site, T value) { return value; }

        public static int At(int site)
        {
            int key = Own() * SITES + site;
            lock (passed)
            {
                long[] counted;
                if (!passed.TryGetValue(key, out counted)) { passed[key] = counted = new long[] { 0, Now(), 0 }; }
                counted[0]++;
                counted[2] = Now();
            }
            return site;
        }

        public static void Event(char kind, object what)
        {
            lock (passed)
            {
                if (made.Count < 1 << 14) { made.Add(kind + " " + Own() + " " + Now() + " " + System.Runtime.CompilerServices.RuntimeHelpers.GetHashCode(what)); }
            }
        }

        static void Write()
        {
            string folder = System.Environment.GetEnvironmentVariable("ELMCART_PROBE_EVENTS");
            if (folder == null) { return; }
            using (var writer = new System.IO.StreamWriter(folder + "/" + System.Diagnostics.Process.GetCurrentProcess().Id))
            {
                lock (passed)
                {
                    foreach (var e in passed) { writer.Write("s " + e.Key % SITES + " " + e.Key / SITES + " " + e.Value[0] + " " + e.Value[1] + " " + e.Value[2] + "\n"); }
                    foreach (string line in made) { writer.Write(line + "\n"); }
                }
            }
        }
    }
)";

class CSharpHarness final : public HarnessWriter {
 public:
  using HarnessWriter::HarnessWriter;

  Result<Harness> write(const ProbePlan& plan) override {
    Harness out;
    widen(plan, out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, "ElmcartProbe.Note('m', \"0\");", out.edits);
    const ProbeFunction& first = plan.scenario == ProbeScenario::Ended ? plan.heard : plan.call;
    if (!first.owner.known()) return Error{plan.file, "there is no class to put the harness into"};
    std::string missing, before, call = callText(plan, missing, before), body;
    if (plan.scenario == ProbeScenario::Ended) {
      if (!plan.ends.at.known()) return Error{plan.file, "nothing says when an object of " + plan.subscriber.ownerName + " ends"};
      std::string made = inBrackets(plan.subscriber, missing), ended = inBrackets(plan.ends, missing), type = joined(plan.subscriber.ownerName, ".");
      atBegin(plan.heard.at, "if (ElmcartProbeRun.subscriber == (object)this) { ElmcartProbe.Note('h', \"0\"); }", out.edits);
      body = before + "            subscriber = new " + type + made + ";\n            ((" + type + ")subscriber)." + plan.ends.name + ended + ";\n            ElmcartProbe.Note('d', \"0\");\n            " + call + ";\n            ElmcartProbe.Write();\n";
    } else {
      body = before + "            ElmcartProbe.Race(() => { " + (plan.call.returns ? "return " + call + ";" : call + "; return null;") + " });\n";
    }
    out.missing = missing;
    Spot into = first.owner;
    if (!atEndOf(into, "\n    public static class ElmcartProbeRun\n    {\n        internal static object subscriber;\n        public static void Main()\n        {\n" + body + "        }\n    }\n", out.edits)) return Error{plan.file, "there is no class to put the harness into"};
    out.files.push_back({"ElmcartProbe.cs", std::string(kSupport)});
    build(plan, first, out);
    return out;
  }

  Result<Harness> cost(const ProbePlan& plan) override {
    Harness out;
    std::string missing, before, call = callText(plan, missing, before);
    out.missing = missing;
    if (!plan.call.owner.known()) return Error{plan.file, "there is no class to put the harness into"};
    std::string body = before + "            ElmcartCost.Run(count => { object kept = null; for (int i = 0; i < count; i++) { kept = " + call + "; } GC.KeepAlive(kept); });\n";
    if (!atEndOf(plan.call.owner, "\n    public static class ElmcartProbeRun\n    {\n        public static void Main()\n        {\n" + replaced(body, "GC.", "System.GC.") + "        }\n    }\n", out.edits)) return Error{plan.file, "there is no class to put the harness into"};
    out.files.push_back({"ElmcartProbe.cs", std::string(kCost)});
    build(plan, plan.call, out);
    return out;
  }

  Result<Harness> watch(const WatchPlan& plan) override {
    Harness out;
    if (!plan.type.known()) return Error{"", "its class is not in the tree: there is nowhere to count"};
    std::string support = replaced(std::string(kWatch), "SITES", std::to_string(plan.sites.size() + 1)), probe = joined(plan.typeName, ".") + ".ElmcartProbe.";
    for (const WatchSite& site : plan.sites) around(site.at, probe + "Pass(" + probe + "At(" + std::to_string(site.number) + "), ", ")", out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, "ElmcartProbe.Event('m', this);", out.edits);
    for (Spot end : plan.ends) atBegin(end, "ElmcartProbe.Event('d', this);", out.edits);
    if (!atEndOf(plan.type, support, out.edits)) return Error{"", "there is no class body in which to count"};
    return out;
  }

 protected:
  std::string gapCall() const override { return "ElmcartProbe.Gap("; }
  std::string madeUp(const ProbeParameter& parameter) const override {
    static const std::set<std::string_view> numbers = {"int", "uint", "long", "ulong", "short", "ushort", "byte", "float", "double", "decimal", "Int32", "Int64"};
    if (parameter.isArray) return "new " + parameter.type + "[1]";
    if (parameter.type == "string" || parameter.type == "String" || parameter.type == "object") return "\"elmcart\"";
    if (parameter.type == "bool") return "true";
    if (parameter.type == "char") return "'e'";
    if (numbers.contains(parameter.type)) return "1";
    return parameter.mayBeNull ? "null" : "";
  }

  std::string nameOf(const ProbePlan&, const ProbeFunction& function) const override { return joined(function.ownerName, ".") + "." + function.name; }
  std::string slotName(const ProbePlan& plan) const override { return joined(plan.slot, "."); }
  std::string newObject(const ProbePlan&, const ProbeFunction& function) const override { return "new " + joined(function.ownerName, ".") + "()"; }
  std::string keepObject(const ProbeFunction& function, const std::string& object) const override { return "            " + joined(function.ownerName, ".") + " " + std::string(kObject) + " = " + object + ";\n"; }

 private:
  static void build(const ProbePlan& plan, const ProbeFunction& first, Harness& out) {
    out.needs = "mcs";
    out.package = "mono-mcs and mono-runtime";
    out.shown = first.owner.file->path;
    out.build.push_back("mcs -nologo -unsafe -warn:0 -main:" + joined(first.ownerName, ".") + "+ElmcartProbeRun -out:elmcart_probe.exe ElmcartProbe.cs" + sourcesOf(plan, first.owner.file->path));
    out.run = "mono elmcart_probe.exe";
  }
  // What the project of the file is made of: its project file's sources and references, and those of the projects it needs;
  // without one all files of the tree.
  static std::string sourcesOf(const ProbePlan& plan, const std::string& file) {
    namespace fs = std::filesystem;
    std::set<std::string> projects, references, sources;
    std::string symbols;
    std::vector<fs::path> open;
    for (fs::path folder = fs::path(file).parent_path();; folder = folder.parent_path()) {
      std::error_code error;
      for (const fs::directory_entry& entry : fs::directory_iterator(fs::path(plan.root) / folder, error))
        if (entry.path().extension() == ".csproj") open.push_back(folder / entry.path().filename());
      if (!open.empty() || folder.empty()) break;
    }
    std::sort(open.begin(), open.end());
    if (open.size() > 1) open.resize(1);
    while (!open.empty()) {
      fs::path project = open.back(), folder = project.parent_path();
      open.pop_back();
      pugi::xml_document document;
      if (!projects.insert(project.string()).second || !document.load_file((fs::path(plan.root) / project).c_str())) continue;
      auto pathOf = [&](pugi::xml_node node) {
        std::string include = node.attribute("Include").value();
        std::replace(include.begin(), include.end(), '\\', '/');
        return (folder / include).lexically_normal();
      };
      bool listed = false;
      for (pugi::xpath_node found : document.select_nodes("//*[local-name()='Compile' and @Include]"))
        if (std::string path = pathOf(found.node()).string(); path.find('*') == std::string::npos && fs::exists(fs::path(plan.root) / path)) sources.insert(path), listed = true;
      std::string below = folder.empty() ? "" : folder.string() + "/";
      for (const std::string& path : plan.files)
        if (!listed && path.starts_with(below)) sources.insert(path);
      for (pugi::xpath_node found : document.select_nodes("//*[local-name()='Reference' and @Include]")) {
        std::string name = found.node().attribute("Include").value();
        if (found.node().select_node("*[local-name()='HintPath']")) continue;
        references.insert(name.substr(0, name.find(',')));
      }
      for (pugi::xpath_node found : document.select_nodes("//*[local-name()='ProjectReference' and @Include]")) open.push_back(pathOf(found.node()));
      if (symbols.empty())
        if (pugi::xpath_node found = document.select_node("//*[local-name()='DefineConstants']")) symbols = found.node().text().get();
    }
    if (projects.empty()) sources.insert(plan.files.begin(), plan.files.end());
    std::string out;
    for (const std::string& reference : references)
      if (reference != "System" && reference != "System.Core" && reference != "mscorlib") out += " -r:" + reference + ".dll";
    if (!symbols.empty()) out += " '-d:" + symbols + "'";
    // Only code: resources are not part of a harness.
    for (const std::string& path : sources) out += " \"" + path + "\"";
    return out;
  }
};

}  // namespace

std::unique_ptr<HarnessWriter> csharpHarness(WriterFiles& files) { return std::make_unique<CSharpHarness>(files); }

}  // namespace elmcart
