// Harnesses in Java: a class inside of the class in question, so that it sees what is private to it.
#include "languages/harness.h"

#include <set>

#include "base/text.h"
#include "languages/java/java.h"

namespace elmcart {
namespace {

constexpr std::string_view kSupport = R"(package elmcartprobe;

import java.io.PrintWriter;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.atomic.AtomicInteger;

public final class Probe {
    private static final int MOST = 1 << 14;
    private static final long BEGUN = System.nanoTime();
    private static final AtomicInteger USED = new AtomicInteger();
    private static final AtomicInteger THREADS = new AtomicInteger(1000);
    private static final char[] KINDS = new char[MOST];
    private static final int[] BY = new int[MOST];
    private static final long[] WHEN = new long[MOST];
    private static final String[] WHAT = new String[MOST];
    private static final ThreadLocal<Integer> THREAD = ThreadLocal.withInitial(THREADS::getAndIncrement);
    private static final int GAP = number("ELMCART_PROBE_GAP", 0);

    private Probe() {
    }

    private static int number(String name, int otherwise) {
        String given = System.getenv(name);
        return given == null ? otherwise : Integer.parseInt(given);
    }

    public interface Call {
        Object call() throws Throwable;
    }

    public static void note(char kind, String what) {
        int at = USED.getAndIncrement();
        if (at >= MOST) {
            return;
        }
        BY[at] = THREAD.get();
        WHEN[at] = System.nanoTime() - BEGUN;
        WHAT[at] = what.replace('\n', ' ');
        KINDS[at] = kind;
    }

    public static <T> T gap(T value) {
        note('i', "0");
        try {
            Thread.sleep(GAP);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        note('o', value instanceof Number ? value.toString() : "0");
        return value;
    }

    public static void write() throws Exception {
        String path = System.getenv("ELMCART_PROBE_EVENTS");
        try (PrintWriter out = path == null ? new PrintWriter(System.out) : new PrintWriter(path, "UTF-8")) {
            for (int i = 0; i < Math.min(MOST, USED.get()); i++) {
                out.println(KINDS[i] + " " + BY[i] + " " + WHEN[i] + " " + WHAT[i]);
            }
        }
    }

    public static void race(Call call) throws Exception {
        int count = number("ELMCART_PROBE_THREADS", 4);
        CyclicBarrier barrier = new CyclicBarrier(count);
        Thread[] threads = new Thread[count];
        for (int i = 0; i < count; i++) {
            int own = i + 1;
            threads[i] = new Thread(() -> {
                THREAD.set(own);
                try {
                    barrier.await();
                    note('c', "0");
                    Object got = call.call();
                    note('g', got == null || got instanceof Number || got instanceof Boolean ? "0" : Integer.toString(System.identityHashCode(got)));
                } catch (Throwable e) {
                    note('x', e.toString());
                }
            });
            threads[i].start();
        }
        for (Thread each : threads) {
            each.join();
        }
        write();
        Runtime.getRuntime().halt(0);
    }
}
)";

// The forms stand beside the project's own with an object of their own.
constexpr std::string_view kCost = R"(package elmcartprobe;

import java.io.PrintWriter;
import java.util.concurrent.CyclicBarrier;

public final class Cost {
    static final class Desk {
    }
    static final class Holder {
        static final Desk DESK = new Desk();
        static Desk desk() {
            return DESK;
        }
    }
    static final class Checked {
        private static volatile Desk desk;
        static Desk desk() {
            Desk seen = desk;
            if (seen == null) {
                synchronized (Checked.class) {
                    seen = desk;
                    if (seen == null) {
                        desk = seen = new Desk();
                    }
                }
            }
            return seen;
        }
    }
    static final class Locked {
        private static Desk desk;
        static synchronized Desk desk() {
            if (desk == null) {
                desk = new Desk();
            }
            return desk;
        }
    }
    static final class Eager {
        private static final Desk DESK = new Desk();
        static Desk desk() {
            return DESK;
        }
    }
    static final class Clerk {
        private final Desk desk;
        Clerk(Desk desk) {
            this.desk = desk;
        }
        Desk desk() {
            return desk;
        }
    }

    public interface Access {
        // Fetches that many times; what is fetched is compared, so that no fetch can be left out.
        int fetch(int count, Object other);
    }

    private static volatile int sink;
    private static Clerk clerk = new Clerk(new Desk());

    private static int number(String name, int otherwise) {
        String given = System.getenv(name);
        return given == null ? otherwise : Integer.parseInt(given);
    }

    private static void measure(PrintWriter out, String form, Access access, int rounds, int most) throws Exception {
        Object other = new Object();
        int count = 1000;
        for (int warm = 0; warm < 20; warm++) {
            sink += access.fetch(20000, other);
        }
        while (true) {
            long begun = System.nanoTime();
            sink += access.fetch(count, other);
            if (System.nanoTime() - begun > 4000000L || count > 1 << 26) {
                break;
            }
            count *= 2;
        }
        final int each = count;
        for (int threads = 1; threads <= most; threads *= 2) {
            for (int round = 0; round < rounds; round++) {
                CyclicBarrier barrier = new CyclicBarrier(threads);
                long[] spent = new long[threads];
                Thread[] all = new Thread[threads];
                for (int t = 0; t < threads; t++) {
                    int own = t;
                    all[t] = new Thread(() -> {
                        try {
                            barrier.await();
                        } catch (Exception e) {
                            throw new IllegalStateException(e);
                        }
                        long begun = System.nanoTime();
                        sink += access.fetch(each, other);
                        spent[own] = System.nanoTime() - begun;
                    });
                    all[t].start();
                }
                double sum = 0;
                for (int t = 0; t < threads; t++) {
                    all[t].join();
                    sum += spent[t];
                }
                out.println("t " + threads + " " + sum / threads / each + " " + form);
            }
        }
    }

    public static void run(Access own) throws Exception {
        int rounds = number("ELMCART_PROBE_ROUNDS", 11), most = number("ELMCART_PROBE_THREADS", 4);
        String path = System.getenv("ELMCART_PROBE_EVENTS");
        try (PrintWriter out = path == null ? new PrintWriter(System.out) : new PrintWriter(path, "UTF-8")) {
            long begun = System.nanoTime();
            sink += own.fetch(1, out);
            out.println("f 1 " + (System.nanoTime() - begun) + " as it is");
            measure(out, "as it is", own, rounds, most);
FORMS        }
        Runtime.getRuntime().halt(0);
    }
}
)";

std::string costForms() {
  std::string out;
  for (auto [form, access] : {std::pair{"holder class", "Holder.desk()"}, {"double check", "Checked.desk()"}, {"lock at each access", "Locked.desk()"}, {"eager", "Eager.desk()"}, {"injected field", "clerk.desk()"}})
    out += std::string("            measure(out, \"") + form + "\", new Access() {\n                public int fetch(int count, Object other) {\n                    int same = 0;\n                    for (int i = 0; i < count; i++) {\n                        if (" + access + " == other) {\n                            same++;\n                        }\n                    }\n                    return same;\n                }\n            }, rounds, most);\n";
  return out;
}

// A class inside of the one that is watched: whoever builds that builds it, too.
constexpr std::string_view kWatch = R"(
    public static final class ElmcartProbe {
        private static final java.util.concurrent.atomic.AtomicInteger NEXT = new java.util.concurrent.atomic.AtomicInteger();
        private static final java.util.concurrent.ConcurrentHashMap<Long, long[]> PASSED = new java.util.concurrent.ConcurrentHashMap<>();
        private static final java.util.concurrent.ConcurrentLinkedQueue<String> MADE = new java.util.concurrent.ConcurrentLinkedQueue<>();
        private static final java.util.concurrent.atomic.AtomicInteger USED = new java.util.concurrent.atomic.AtomicInteger();
        private static final ThreadLocal<Object[]> OWN = new ThreadLocal<Object[]>() {
            @Override protected Object[] initialValue() {
                return new Object[] {Integer.valueOf(NEXT.incrementAndGet()), new long[SITES][]};
            }
        };
        static {
            Runtime.getRuntime().addShutdownHook(new Thread() {
                @Override public void run() {
                    write();
                }
            });
        }

        private static final long EPOCH = System.currentTimeMillis() * 1000000L - System.nanoTime();

        private static long now() {
            return EPOCH + System.nanoTime();
        }

        // Arguments are evaluated from the left (JLS 15.7.4): the place is noted before the object is fetched.
        public static <T> T pass(int site, T value) {
            return value;
        }

        public static int at(int site) {
            Object[] own = OWN.get();
            long[][] all = (long[][]) own[1];
            long[] passed = all[site];
            if (passed == null) {
                passed = new long[] {0, now(), 0};
                all[site] = passed;
                PASSED.put((long) (Integer) own[0] * SITES + site, passed);
            }
            passed[0]++;
            passed[2] = now();
            return site;
        }

        public static void event(char kind, Object what) {
            if (USED.incrementAndGet() <= 1 << 14) {
                MADE.add(kind + " " + OWN.get()[0] + " " + now() + " " + System.identityHashCode(what));
            }
        }

        private static void write() {
            String folder = System.getenv("ELMCART_PROBE_EVENTS");
            if (folder == null) {
                return;
            }
            try (java.io.PrintWriter out = new java.io.PrintWriter(folder + "/" + java.lang.management.ManagementFactory.getRuntimeMXBean().getName(), "UTF-8")) {
                for (java.util.Map.Entry<Long, long[]> e : PASSED.entrySet()) {
                    out.println("s " + e.getKey() % SITES + " " + e.getKey() / SITES + " " + e.getValue()[0] + " " + e.getValue()[1] + " " + e.getValue()[2]);
                }
                for (String made : MADE) {
                    out.println(made);
                }
            } catch (java.io.IOException e) {
                System.err.println("elmcart probe: " + e);
            }
        }
    }
)";

class JavaHarness final : public HarnessWriter {
 public:
  using HarnessWriter::HarnessWriter;

  Result<Harness> write(const ProbePlan& plan) override {
    Harness out;
    out.needs = "javac";
    out.package = "default-jdk";
    widen(plan, out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, "elmcartprobe.Probe.note('m', \"0\");", out.edits, {"super(", "this("});
    const ProbeFunction& first = plan.scenario == ProbeScenario::Ended ? plan.heard : plan.call;
    if (!first.owner.known()) return Error{plan.file, "there is no class to put the harness into"};
    std::string missing, before, call = callText(plan, missing, before), body;
    if (plan.scenario == ProbeScenario::Ended) {
      if (!plan.ends.at.known()) return Error{plan.file, "nothing says when an object of " + plan.subscriber.ownerName + " ends"};
      std::string made = inBrackets(plan.subscriber, missing), ended = inBrackets(plan.ends, missing);
      atBegin(plan.heard.at, "if (ElmcartProbeRun.subscriber == this) elmcartprobe.Probe.note('h', \"0\");", out.edits);
      std::string type = joined(plan.subscriber.ownerName, ".");
      body = before + "            subscriber = new " + type + made + ";\n            ((" + type + ") subscriber)." + plan.ends.name + ended + ";\n            elmcartprobe.Probe.note('d', \"0\");\n            " + call + ";\n            elmcartprobe.Probe.write();\n            Runtime.getRuntime().halt(0);\n";
    } else {
      body = before + "            elmcartprobe.Probe.race(new elmcartprobe.Probe.Call() {\n                public Object call() throws Throwable {\n                    " + (plan.call.returns ? "return " + call + ";" : call + ";\n                    return null;") + "\n                }\n            });\n";
    }
    out.missing = missing;
    Spot into = first.owner;
    if (!atEndOf(into, "\n    public static final class ElmcartProbeRun {\n        static Object subscriber;\n        public static void main(String[] arguments) throws Throwable {\n" + body + "        }\n    }\n", out.edits)) return Error{plan.file, "there is no class to put the harness into"};
    out.files.push_back({"elmcart_probe/elmcartprobe/Probe.java", std::string(kSupport)});
    out.shown = into.file->path;
    build(*into.file, first, plan, out);
    return out;
  }

  Result<Harness> cost(const ProbePlan& plan) override {
    Harness out;
    out.needs = "javac";
    out.package = "default-jdk";
    std::string missing, before, call = callText(plan, missing, before);
    out.missing = missing;
    if (!plan.call.owner.known()) return Error{plan.file, "there is no class to put the harness into"};
    std::string body = before + "            elmcartprobe.Cost.run(new elmcartprobe.Cost.Access() {\n                public int fetch(int count, Object other) {\n                    int same = 0;\n                    for (int i = 0; i < count; i++) {\n                        if ((Object) " + call + " == other) {\n                            same++;\n                        }\n                    }\n                    return same;\n                }\n            });\n";
    if (!atEndOf(plan.call.owner, "\n    public static final class ElmcartProbeRun {\n        public static void main(String[] arguments) throws Throwable {\n" + body + "        }\n    }\n", out.edits)) return Error{plan.file, "there is no class to put the harness into"};
    out.files.push_back({"elmcart_probe/elmcartprobe/Probe.java", std::string(kSupport)});
    out.files.push_back({"elmcart_probe/elmcartprobe/Cost.java", replaced(std::string(kCost), "FORMS", costForms())});
    out.shown = plan.call.owner.file->path;
    build(*plan.call.owner.file, plan.call, plan, out);
    out.run = replaced(out.run, "-XX:TieredStopAtLevel=1 ", "");
    return out;
  }

  Result<Harness> watch(const WatchPlan& plan) override {
    Harness out;
    if (!plan.type.known()) return Error{"", "its class is not in the tree: there is nowhere to count"};
    std::string support = replaced(std::string(kWatch), "SITES", std::to_string(plan.sites.size() + 1)), probe = joined(plan.typeName, ".") + ".ElmcartProbe.";
    for (const WatchSite& site : plan.sites) around(site.at, probe + "pass(" + probe + "at(" + std::to_string(site.number) + "), ", ")", out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, "ElmcartProbe.event('m', this);", out.edits, {"super(", "this("});
    for (Spot end : plan.ends) atBegin(end, "ElmcartProbe.event('d', this);", out.edits);
    if (!atEndOf(plan.type, support, out.edits)) return Error{"", "there is no class body in which to count"};
    return out;
  }

 protected:
  std::string gapCall() const override { return "elmcartprobe.Probe.gap("; }
  std::string madeUp(const ProbeParameter& parameter) const override {
    std::string_view type = parameter.type;
    if (parameter.isArray) return "new " + parameter.type + "[1]";
    if (type == "String" || type == "CharSequence" || type == "Object") return "\"elmcart\"";
    if (type == "boolean" || type == "Boolean") return "true";
    if (type == "char" || type == "Character") return "'e'";
    if (type == "long" || type == "Long") return "1L";
    if (type == "double" || type == "Double") return "1.0";
    if (type == "float" || type == "Float") return "1.0f";
    if (type == "byte" || type == "short") return "(" + std::string(type) + ") 1";
    if (type == "int" || type == "Integer") return "1";
    return type == "Runnable" ? "() -> { }" : "";
  }

  std::string nameOf(const ProbePlan&, const ProbeFunction& function) const override { return joined(function.ownerName, ".") + "." + function.name; }
  std::string slotName(const ProbePlan& plan) const override { return joined(plan.slot, "."); }
  std::string newObject(const ProbePlan&, const ProbeFunction& function) const override { return "new " + joined(function.ownerName, ".") + "()"; }
  std::string keepObject(const ProbeFunction& function, const std::string& object) const override { return "            final " + joined(function.ownerName, ".") + " " + std::string(kObject) + " = " + object + ";\n"; }

 private:
  // The folder that packages are counted from is the one of the file, without the package's own parts.
  void build(const LoweredFile& file, const ProbeFunction& first, const ProbePlan& plan, Harness& out) {
    const SyntaxTree& syntax = files_.tree(file);
    std::string space;
    SyntaxTree::walk(syntax.root(), [&](TSNode node) {
      if (SyntaxTree::is(node, "package_declaration")) space = std::string(syntax.text(SyntaxTree::named(node, ts_node_named_child_count(node) - 1)));
      return SyntaxTree::is(node, "program");
    });
    std::string folder = file.path.substr(0, file.path.rfind('/') == std::string::npos ? 0 : file.path.rfind('/')), part = space;
    for (char& c : part) if (c == '.') c = '/';
    if (!part.empty() && folder.ends_with(part)) folder = folder.substr(0, folder.size() - part.size());
    while (folder.ends_with('/')) folder.pop_back();
    if (folder.empty()) folder = ".";
    // Names of classes in classes are told apart from packages by a dollar.
    std::string name = joined(first.ownerName, "."), prefix = space.empty() ? "" : space + ".";
    if (name.starts_with(prefix)) name = name.substr(prefix.size());
    for (char& c : name) if (c == '.') c = '$';
    std::string paths = plan.classPath.empty() ? "" : ":" + plan.classPath;
    out.build.push_back("javac -nowarn -Xlint:none -encoding UTF-8 -d elmcart_probe_out -sourcepath \"" + folder + ":elmcart_probe\"" + (paths.empty() ? "" : " -cp \"" + paths.substr(1) + "\"") + " elmcart_probe/elmcartprobe/Probe.java \"" + file.path + "\"");
    out.run = "java -Xshare:auto -XX:TieredStopAtLevel=1 -cp \"elmcart_probe_out" + paths + "\" '" + prefix + name + "$ElmcartProbeRun'";
  }
};

}  // namespace

std::unique_ptr<HarnessWriter> javaHarness(WriterFiles& files) { return std::make_unique<JavaHarness>(files); }

}  // namespace elmcart
