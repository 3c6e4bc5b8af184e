// Which threads run a function, and which two functions can run at the same time, on small programs.
#include <gtest/gtest.h>

#include <string>
#include <vector>

#include "flow/once.h"
#include "flow/threads.h"
#include "program/load.h"
#include "program/program.h"

using namespace elmcart;

namespace {

struct Case {
  const char* name;
  const char* file;
  const char* source;
  const char* a;  // two functions of it
  const char* b;
  Meeting meeting;
};

FunctionIndex named(const Program& p, const std::string& name) {
  FunctionIndex out = kNone;
  for (FunctionIndex i = 0; i < p.functions.size(); ++i)
    if (p.text(p.functions[i].name) == name && (out == kNone || p.functions[i].definition.known())) out = i;
  return out;
}

Program programOf(const Case& c) {
  std::vector<LoweredFile> files;
  files.push_back(lowerText(c.file, c.source));
  Linking linking(".", 1, 0, 1);
  for (LoweredFile& file : files) linking.add(std::move(file));
  return linking.finish();
}

class Meets : public testing::TestWithParam<Case> {};

TEST_P(Meets, AsStated) {
  const Case& c = GetParam();
  Program p = programOf(c);
  Threads threads(p, std::vector<bool>(p.files.size(), false));
  FunctionIndex a = named(p, c.a), b = named(p, c.b);
  ASSERT_NE(a, kNone) << c.a;
  ASSERT_NE(b, kNone) << c.b;
  Threads::Piece one{threads.sideOf(a), a, {}}, other{threads.sideOf(b), b, {}};
  EXPECT_EQ(static_cast<int>(threads.meeting(one, other)), static_cast<int>(c.meeting));
  EXPECT_EQ(static_cast<int>(threads.meeting(other, one)), static_cast<int>(c.meeting)) << "the other way round";
}

// ----- how threads are started, in each language that has them

const Case kStarted[] = {
    {"CppThread", "a.cpp", "#include <thread>\nvoid lift() {}\nint main() { std::thread t(lift); lift(); t.join(); }", "lift", "lift", Meeting::Certain},
    {"CppLambda", "a.cpp", "#include <thread>\nvoid lift() {}\nint main() { std::thread t([] { lift(); }); lift(); t.join(); }", "lift", "lift", Meeting::Certain},
    {"CppCollection", "a.cpp", "#include <thread>\n#include <vector>\nvoid lift() {}\nint main() { std::vector<std::thread> all; for (int i = 0; i < 3; ++i) all.emplace_back(lift); }", "lift", "lift", Meeting::Certain},
    {"CppObject", "a.cpp", "#include <thread>\nstruct Crane { void operator()() { lift(); } void lift() {} };\nint main() { std::thread t{Crane()}; Crane c; c.lift(); }", "lift", "lift", Meeting::Certain},
    {"CppVirtual", "a.cpp", "#include <pthread.h>\nstruct Work { virtual void run() = 0; };\nvoid lift() {}\nstruct Crane : Work { void run() override { lift(); } };\nvoid* entry(void* w) { static_cast<Work*>(w)->run(); return 0; }\nint main() { Crane c; pthread_t t; pthread_create(&t, 0, entry, &c); lift(); }", "lift", "lift", Meeting::Certain},
    {"JavaRunnable", "A.java", "class A { static void lift() {} static class Work implements Runnable { public void run() { lift(); } } public static void main(String[] a) { new Thread(new Work()).start(); lift(); } }", "lift", "lift", Meeting::Certain},
    {"JavaSubclass", "A.java", "class A { static void lift() {} static class Work extends Thread { public void run() { lift(); } } public static void main(String[] a) { new Work().start(); lift(); } }", "lift", "lift", Meeting::Certain},
    {"JavaReference", "A.java", "class A { static void lift() {} public static void main(String[] a) { new Thread(A::lift).start(); lift(); } }", "lift", "lift", Meeting::Certain},
    {"KotlinThread", "a.kt", "import kotlin.concurrent.thread\nfun lift() {}\nfun main() { thread { lift() }\n lift() }", "lift", "lift", Meeting::Certain},
    {"PythonTarget", "a.py", "import threading\ndef lift():\n    pass\ndef main():\n    threading.Thread(target=lift).start()\n    lift()\nmain()\n", "lift", "lift", Meeting::Certain},
    {"PythonSubclass", "a.py", "import threading\ndef lift():\n    pass\nclass Crane(threading.Thread):\n    def run(self):\n        lift()\ndef main():\n    Crane().start()\n    lift()\nmain()\n", "lift", "lift", Meeting::Certain},
    {"PythonMany", "a.py", "import threading\ndef lift():\n    pass\ndef main():\n    for t in [threading.Thread(target=lift) for i in range(3)]:\n        t.start()\nmain()\n", "lift", "lift", Meeting::Certain},
    {"GoStatement", "a.go", "package main\nfunc lift() {}\nfunc main() {\n\tgo lift()\n\tlift()\n}\n", "lift", "lift", Meeting::Certain},
    {"GoLiteral", "a.go", "package main\nfunc lift() {}\nfunc main() {\n\tgo func() {\n\t\tlift()\n\t}()\n\tlift()\n}\n", "lift", "lift", Meeting::Certain},
    {"GoHandler", "a.go", "package main\nimport \"net/http\"\nvar n int\nfunc count() { n++ }\nfunc serve(w http.ResponseWriter, r *http.Request) { count() }\nfunc main() {\n\thttp.HandleFunc(\"/\", serve)\n\thttp.ListenAndServe(\":80\", nil)\n}\n", "count", "count", Meeting::Certain},
    {"CsharpThread", "A.cs", "using System.Threading;\nclass A { static void Lift() {} static void Main() { new Thread(Lift).Start(); Lift(); } }", "Lift", "Lift", Meeting::Certain},
    {"SwiftQueue", "a.swift", "import Dispatch\nfunc lift() {}\nfunc order() {\n    DispatchQueue.global().async { lift() }\n    lift()\n}\n", "lift", "lift", Meeting::Likely},
};

// ----- what never meets

const Case kApart[] = {
    {"OneThreadAlone", "a.go", "package main\nfunc lift() {}\nfunc main() {\n\tgo lift()\n}\n", "lift", "lift", Meeting::Never},
    {"MainAlone", "a.go", "package main\nfunc lift() {}\nfunc work() {}\nfunc main() {\n\tgo work()\n\tlift()\n}\n", "lift", "lift", Meeting::Never},
    {"BeforeTheFirstThread", "a.go", "package main\nfunc read() {}\nfunc work() { read() }\nfunc set() {}\nfunc main() {\n\tset()\n\tgo work()\n}\n", "set", "read", Meeting::Never},
    {"BeforeInACallee", "a.py", "import threading\ndef read():\n    pass\ndef set_up():\n    pass\ndef start():\n    set_up()\n    threading.Thread(target=read).start()\ndef main():\n    start()\nmain()\n", "set_up", "read", Meeting::Never},
    {"AfterTheFirstThread", "a.go", "package main\nfunc read() {}\nfunc work() { read() }\nfunc set() {}\nfunc main() {\n\tgo work()\n\tset()\n}\n", "set", "read", Meeting::Certain},
    {"BeforeInALoop", "a.go", "package main\nfunc read() {}\nfunc work() { read() }\nfunc set() {}\nfunc main() {\n\tfor {\n\t\tset()\n\t\tgo work()\n\t}\n}\n", "set", "read", Meeting::Certain},
    {"OnlyBeforeItsOwnThread", "A.java", "public class A { void read() {} void set() {} public void open() { set(); new Thread(this::read).start(); } }", "set", "read", Meeting::NotKnown},
    {"MainQueue", "a.swift", "import Dispatch\nfunc lift() {}\nfunc order() {\n    DispatchQueue.main.async { lift() }\n    lift()\n}\n", "lift", "lift", Meeting::NotKnown},
    {"MainDispatcher", "a.kt", "fun lift() {}\nfun order(scope: CoroutineScope) { scope.launch(Dispatchers.Main) { lift() }\n lift() }", "lift", "lift", Meeting::NotKnown},
    {"CodeThatIsLoaded", "a.py", "import threading\ndef read():\n    pass\ndef set_up():\n    pass\nset_up()\nthreading.Thread(target=read).start()\n", "set_up", "read", Meeting::Never},
    {"NoThreads", "a.cpp", "void lift() {}\nint main() { lift(); }", "lift", "lift", Meeting::Never},
};

// ----- threads whose end is waited for, tasks that run one after the other, the main thread

const Case kOrdered[] = {
    {"CommandOfALibrary", "a.go", "package main\nimport \"lib\"\ntype serve struct{}\nfunc lift() {}\nfunc set() {}\nfunc (s serve) Run() error {\n\tset()\n\tgo lift()\n\treturn nil\n}\nvar commands struct {\n\tServe serve\n}\nfunc main() { lib.Parse(&commands) }\n", "set", "lift", Meeting::Never},
    {"RequestsOfALibrary", "a.go", "package main\nimport \"lib\"\ntype serve struct{}\nfunc lift() {}\nfunc set() {}\nfunc (s serve) Answer(text string) error {\n\tset()\n\tgo lift()\n\treturn nil\n}\nvar commands struct {\n\tServe serve\n}\nfunc main() { lib.Parse(&commands) }\n", "set", "lift", Meeting::NotKnown},
    {"TwoBranches", "a.go", "package main\nimport \"os\"\nfunc lift() {}\nfunc set() {}\nfunc watch() { go lift() }\nfunc work() {\n\tgo func() {}()\n\tset()\n}\nfunc main() {\n\tif len(os.Args) > 1 {\n\t\twatch()\n\t} else {\n\t\twork()\n\t}\n}\n", "set", "lift", Meeting::Never},
    {"TwoPrograms", "A.java", "class Crane { static void lift() {} static void set() {} static void rest() {} }\nclass One { public static void main(String[] a) { new Thread(Crane::lift).start(); } }\nclass Two { public static void main(String[] a) { new Thread(Crane::rest).start(); Crane.set(); } }", "lift", "set", Meeting::Never},
    {"OneProgramOfTwo", "A.java", "class Crane { static void lift() {} static void set() {} static void rest() {} }\nclass One { public static void main(String[] a) { new Thread(Crane::lift).start(); Crane.set(); } }\nclass Two { public static void main(String[] a) { new Thread(Crane::rest).start(); Crane.set(); } }", "lift", "set", Meeting::Certain},
    {"JoinedBefore", "a.cpp", "#include <thread>\nvoid lift() {}\nvoid count() { lift(); }\nint main() { std::thread t(lift); t.join(); count(); }", "lift", "count", Meeting::Never},
    {"JoinedAfter", "a.cpp", "#include <thread>\nvoid lift() {}\nvoid count() { lift(); }\nint main() { std::thread t(lift); count(); t.join(); }", "lift", "count", Meeting::Certain},
    {"JoinedMaybe", "a.cpp", "#include <thread>\nvoid lift() {}\nvoid count() {}\nint main(int n, char**) { std::thread t(lift); if (n > 1) t.join(); count(); }", "lift", "count", Meeting::Certain},
    {"AnotherIsJoined", "a.cpp", "#include <thread>\nvoid lift() {}\nvoid rest() {}\nvoid count() {}\nint main() { std::thread t(lift); std::thread u(rest); u.join(); count(); t.join(); }", "lift", "count", Meeting::Certain},
    {"AllJoined", "a.cpp", "#include <thread>\n#include <vector>\nvoid lift() {}\nvoid count() {}\nint main() { std::vector<std::thread> all; for (int i = 0; i < 3; ++i) all.emplace_back(lift); for (auto& t : all) t.join(); count(); }", "lift", "count", Meeting::Never},
    {"JoinedInACallee", "a.py", "import threading\ndef lift():\n    pass\ndef count():\n    pass\ndef order():\n    t = threading.Thread(target=lift)\n    t.start()\n    t.join()\ndef main():\n    order()\n    count()\nmain()\n", "lift", "count", Meeting::Never},
    {"OneAfterTheOther", "A.java", "class A { static void lift() {} static void lower() {} public static void main(String[] a) throws Exception { Thread one = new Thread(A::lift); one.start(); one.join(); Thread two = new Thread(A::lower); two.start(); } }", "lift", "lower", Meeting::Never},
    {"ListJoined", "A.java", "import java.util.*;\nclass A { static void lift() {} static void count() {} public static void main(String[] a) throws Exception { List<Thread> all = new ArrayList<>(); for (int i = 0; i < 3; i++) { Thread t = new Thread(A::lift); all.add(t); t.start(); } for (Thread t : all) t.join(); count(); } }", "lift", "count", Meeting::Never},
    {"GoGroup", "a.go", "package main\nimport \"sync\"\nfunc lift() {}\nfunc count() {}\nfunc main() {\n\tvar group sync.WaitGroup\n\tgroup.Add(1)\n\tgo func() {\n\t\tdefer group.Done()\n\t\tlift()\n\t}()\n\tgroup.Wait()\n\tcount()\n}\n", "lift", "count", Meeting::Never},
    {"CsharpTask", "A.cs", "using System.Threading;\nclass A { static void Lift() {} static void Count() {} static void Main() { var t = new Thread(Lift); t.Start(); t.Join(); Count(); } }", "Lift", "Count", Meeting::Never},
    {"JavaSerial", "A.java", "import java.util.concurrent.*;\nclass A { final ExecutorService line = Executors.newSingleThreadExecutor(); void lift() {} void lower() {} public void order() { line.submit(() -> lift()); line.submit(() -> lower()); } }", "lift", "lower", Meeting::Never},
    {"JavaPool", "A.java", "import java.util.concurrent.*;\nclass A { final ExecutorService line = Executors.newFixedThreadPool(4); void lift() {} void lower() {} public void order() { line.submit(() -> lift()); line.submit(() -> lower()); } }", "lift", "lower", Meeting::Certain},
    {"SwiftSerial", "a.swift", "import Dispatch\nclass Crane {\n    let line = DispatchQueue(label: \"crane\")\n    func lift() {}\n    func lower() {}\n    func order() {\n        line.async { self.lift() }\n        line.async { self.lower() }\n    }\n}\n", "lift", "lower", Meeting::Never},
    {"SwiftConcurrent", "a.swift", "import Dispatch\nclass Crane {\n    let line = DispatchQueue(label: \"crane\", attributes: .concurrent)\n    func lift() {}\n    func lower() {}\n    func order() {\n        line.async { self.lift() }\n        line.async { self.lower() }\n    }\n}\n", "lift", "lower", Meeting::Certain},
    {"HelperHandsToTheMainThread", "A.java", "import javax.swing.*;\nclass A { static void onEvents(Runnable task) { if (SwingUtilities.isEventDispatchThread()) task.run(); else SwingUtilities.invokeLater(task); } void show() {} public void order() { new Thread(() -> onEvents(() -> show())).start(); show(); } }", "show", "show", Meeting::NotKnown},
    {"HelperWrapsATask", "A.java", "import javax.swing.*;\nimport java.util.concurrent.*;\nclass A { static Object asked(Callable<Object> code) { FutureTask<Object> task = new FutureTask<>(code); SwingUtilities.invokeLater(task); return task; } Object show() { return this; } public void order() { new Thread(() -> asked(() -> show())).start(); show(); } }", "show", "show", Meeting::NotKnown},
    {"HelperRunsItHere", "A.java", "class A { static void now(Runnable task) { task.run(); } static void show() {} public static void main(String[] a) { new Thread(() -> now(() -> show())).start(); show(); } }", "show", "show", Meeting::Certain},
    {"TimerOfTheEventThread", "A.java", "import javax.swing.Timer;\nclass A { static void show() {} public static void main(String[] a) { new Timer(100, e -> show()).start(); show(); } }", "show", "show", Meeting::Never},
    {"TimerThatIsGivenTasks", "A.java", "import java.util.*;\nclass A { static void show() {} public static void main(String[] a) { new Timer().schedule(new TimerTask() { public void run() { show(); } }, 5); show(); } }", "show", "show", Meeting::Certain},
    {"WindowsRunOnTheEventThread", "A.java", "import javax.swing.*;\nclass A extends JDialog { void show() {} static void work() { new A().show(); } static void main(String[] a) { new Thread(A::work).start(); new A().show(); } }", "show", "show", Meeting::Never},
    {"WindowsWithLocksReckonWithOthers", "A.java", "import javax.swing.*;\nclass A extends JDialog { int n; void show() { synchronized (this) { n++; } } public static void main(String[] a) { new Thread(() -> new A().show()).start(); new A().show(); } }", "show", "show", Meeting::Certain},
    {"QtWidget", "a.cpp", "#include <QWidget>\n#include <thread>\nclass Board : public QWidget { public: void paint() {} };\nvoid work(Board* b) { b->paint(); }\nint main() { Board b; std::thread t(work, &b); b.paint(); t.join(); }", "paint", "paint", Meeting::Never},
    {"BackOnTheMainThread", "A.java", "import javax.swing.*;\nclass A { void show() {} void work() { SwingUtilities.invokeLater(() -> show()); } public void order() { new Thread(this::work).start(); show(); } }", "show", "show", Meeting::NotKnown},
    {"OnTheScreensThread", "A.java", "class A { void show() {} void work(Screen screen) { screen.runOnUiThread(() -> show()); } public void order(Screen screen) { new Thread(() -> work(screen)).start(); show(); } }", "show", "show", Meeting::NotKnown},
    {"MarkedMainClosure", "a.swift", "class A {\n    func lift() {}\n    func order() {\n        Task { @MainActor in lift() }\n        lift()\n    }\n}\n", "lift", "lift", Meeting::NotKnown},
    {"MarkedMainClass", "a.swift", "@MainActor\nclass A {\n    func lift() {}\n    func order() {\n        Task { lift() }\n        lift()\n    }\n}\n", "lift", "lift", Meeting::Never},
    {"UnmarkedTask", "a.swift", "class A {\n    func lift() {}\n    func order() {\n        Task { lift() }\n        lift()\n    }\n}\n", "lift", "lift", Meeting::Likely},
};

// ----- what is not told

const Case kUntold[] = {
    {"ALibrary", "a.go", "package crane\nfunc Lift() {}\n", "Lift", "Lift", Meeting::NotKnown},
    {"AThreadAndAnybody", "a.go", "package crane\nfunc lift() {}\nfunc Start() {\n\tgo lift()\n}\nfunc Stop() { lift() }\n", "lift", "lift", Meeting::Likely},
    {"StartedByAnybody", "a.go", "package crane\nfunc lift() {}\nfunc Order() {\n\tgo lift()\n}\n", "lift", "lift", Meeting::Likely},
    {"ServesWithoutEnd", "a.go", "package crane\nfunc lift() {}\nfunc serve() {\n\tfor {\n\t\tlift()\n\t}\n}\nfunc Start() {\n\tgo serve()\n}\n", "lift", "lift", Meeting::Never},
    {"IsKept", "A.java", "class A { Thread kept; void lift() {} public void open() { kept = new Thread(this::lift); kept.start(); } }", "lift", "lift", Meeting::Never},
    {"OneLambdaTwice", "A.java", "class A { static void lift() {} public static void main(String[] a) { Runnable r = () -> lift(); Thread t = new Thread(r); Thread u = new Thread(r); t.start(); u.start(); } }", "lift", "lift", Meeting::Certain},
    {"OneLambdaOnce", "A.java", "class A { static void lift() {} public static void main(String[] a) { Runnable r = () -> lift(); Thread t = new Thread(r); t.start(); } }", "lift", "lift", Meeting::Never},
    {"TwoThreads", "a.go", "package main\nfunc lift() {}\nfunc one() { lift() }\nfunc two() { lift() }\nfunc main() {\n\tgo one()\n\tgo two()\n}\n", "lift", "lift", Meeting::Certain},
};

// ----- more ways to start one, and what keeps two pieces of code apart

const Case kMore[] = {
    {"CppAsync", "a.cpp", "#include <future>\nvoid lift() {}\nint main() { auto f = std::async(std::launch::async, lift); lift(); f.get(); }", "lift", "lift", Meeting::Certain},
    {"CppJthread", "a.cpp", "#include <thread>\nvoid lift() {}\nint main() { std::jthread t(lift); lift(); }", "lift", "lift", Meeting::Certain},
    {"CppMember", "a.cpp", "#include <thread>\nstruct Crane { void lift() {} void go() { std::thread t(&Crane::lift, this); lift(); t.join(); } };\nint main() { Crane c; c.go(); }", "lift", "lift", Meeting::Certain},
    {"CppPosix", "a.cpp", "#include <pthread.h>\nvoid* lift(void*) { return 0; }\nint main() { pthread_t t; pthread_create(&t, 0, lift, 0); lift(0); }", "lift", "lift", Meeting::Certain},
    {"CppTwoLambdas", "a.cpp", "#include <thread>\nvoid lift() {}\nint main() { std::thread a([] { lift(); }); std::thread b([] { lift(); }); a.join(); b.join(); }", "lift", "lift", Meeting::Certain},
    {"CppLambdaNotStarted", "a.cpp", "void lift() {}\nint main() { auto f = [] { lift(); }; f(); lift(); }", "lift", "lift", Meeting::Never},
    {"JavaAnonymous", "A.java", "class A { static void lift() {} public static void main(String[] a) { new Thread(new Runnable() { public void run() { lift(); } }).start(); lift(); } }", "lift", "lift", Meeting::Certain},
    {"JavaVirtual", "A.java", "class A { static void lift() {} public static void main(String[] a) { Thread.startVirtualThread(() -> lift()); lift(); } }", "lift", "lift", Meeting::Certain},
    {"JavaTimer", "A.java", "import java.util.*; class A { static void lift() {} public static void main(String[] a) { new Timer().schedule(new TimerTask() { public void run() { lift(); } }, 1); lift(); } }", "lift", "lift", Meeting::Certain},
    {"JavaFuture", "A.java", "import java.util.concurrent.*; class A { static void lift() {} public static void main(String[] a) { CompletableFuture.runAsync(() -> lift()); lift(); } }", "lift", "lift", Meeting::Certain},
    {"JavaRunnableKept", "A.java", "class A implements Runnable { static void lift() {} public void run() { lift(); } public static void main(String[] a) { A one = new A(); new Thread(one).start(); lift(); } }", "lift", "lift", Meeting::Certain},
    {"JavaInLoop", "A.java", "class A { static void lift() {} public static void main(String[] a) { for (int i = 0; i < 3; i++) new Thread(A::lift).start(); } }", "lift", "lift", Meeting::Certain},
    {"JavaRunNotStarted", "A.java", "class A { static void lift() {} public static void main(String[] a) { Runnable r = () -> lift(); r.run(); lift(); } }", "lift", "lift", Meeting::Never},
    {"KotlinCoroutine", "a.kt", "fun lift() {}\nfun main() { GlobalScope.launch { lift() }\n lift() }", "lift", "lift", Meeting::Certain},
    {"KotlinRunnable", "a.kt", "class Work : Runnable { override fun run() { lift() } }\nfun lift() {}\nfun main() { Thread(Work()).start()\n lift() }", "lift", "lift", Meeting::Certain},
    {"PythonPool", "a.py", "from concurrent.futures import ThreadPoolExecutor\ndef lift():\n    pass\ndef main():\n    with ThreadPoolExecutor() as pool:\n        pool.submit(lift)\n        lift()\nmain()\n", "lift", "lift", Meeting::Certain},
    {"PythonTimer", "a.py", "import threading\ndef lift():\n    pass\ndef main():\n    t = threading.Timer(1, lift)\n    t.start()\n    lift()\nmain()\n", "lift", "lift", Meeting::Certain},
    {"PythonLambda", "a.py", "import threading\ndef lift():\n    pass\nthreading.Thread(target=lambda: lift()).start()\nlift()\n", "lift", "lift", Meeting::Certain},
    {"PythonJoined", "a.py", "import threading\ndef lift():\n    pass\ndef main():\n    t = threading.Thread(target=lift)\n    t.start()\n    t.join()\n    lift()\nmain()\n", "lift", "lift", Meeting::Never},
    {"PythonNotStarted", "a.py", "def lift():\n    pass\ndef main():\n    work = lift\n    work()\n    lift()\nmain()\n", "lift", "lift", Meeting::Never},
    {"GoMethod", "a.go", "package main\ntype Crane struct{}\nfunc (c *Crane) lift() {}\nfunc main() {\n\tc := &Crane{}\n\tgo c.lift()\n\tc.lift()\n}\n", "lift", "lift", Meeting::Certain},
    {"GoInLoop", "a.go", "package main\nfunc lift() {}\nfunc main() {\n\tfor i := 0; i < 3; i++ {\n\t\tgo lift()\n\t}\n}\n", "lift", "lift", Meeting::Certain},
    {"GoThroughACallee", "a.go", "package main\nfunc lift() {}\nfunc work() { lift() }\nfunc begin() { go work() }\nfunc main() {\n\tbegin()\n\tlift()\n}\n", "lift", "lift", Meeting::Certain},
    {"GoDeferred", "a.go", "package main\nfunc lift() {}\nfunc main() {\n\tdefer lift()\n\tlift()\n}\n", "lift", "lift", Meeting::Never},
    {"CsharpTaskRun", "A.cs", "using System.Threading.Tasks; class A { static void Lift() {} static void Main() { Task.Run(() => Lift()); Lift(); } }", "Lift", "Lift", Meeting::Certain},
    {"CsharpDelegate", "A.cs", "using System.Threading; class A { static void Lift() {} static void Main() { new Thread(delegate() { Lift(); }).Start(); Lift(); } }", "Lift", "Lift", Meeting::Certain},
    {"CsharpPool", "A.cs", "using System.Threading; class A { static void Lift() {} static void Main() { ThreadPool.QueueUserWorkItem(x => Lift()); Lift(); } }", "Lift", "Lift", Meeting::Certain},
    {"CsharpParallel", "A.cs", "using System.Threading.Tasks; class A { static void Lift() {} static void Main() { Parallel.For(0, 3, i => Lift()); } }", "Lift", "Lift", Meeting::Certain},
    {"SwiftThread", "a.swift", "import Foundation\nfunc lift() {}\n@main struct A { static func main() {\n Thread { lift() }.start()\n lift()\n} }\n", "lift", "lift", Meeting::Certain},
    {"SwiftGlobalQueue", "a.swift", "import Foundation\nfunc lift() {}\n@main struct A { static func main() {\n DispatchQueue.global().async { lift() }\n lift()\n} }\n", "lift", "lift", Meeting::Certain},
    {"ObjcDispatch", "a.m", "#import <Foundation/Foundation.h>\nvoid lift(void) {}\nint main(void) { dispatch_async(dispatch_get_global_queue(0, 0), ^{ lift(); }); lift(); return 0; }", "lift", "lift", Meeting::Certain},
    {"ObjcMainQueue", "a.m", "#import <Foundation/Foundation.h>\nvoid lift(void) {}\nint main(void) { dispatch_async(dispatch_get_main_queue(), ^{ lift(); }); lift(); return 0; }", "lift", "lift", Meeting::Never},
    {"DartIsolate", "a.dart", "import 'dart:isolate';\nvoid lift() {}\nvoid main() { Isolate.run(lift); lift(); }", "lift", "lift", Meeting::Never},
    {"JavascriptTimer", "a.js", "function lift() {}\nsetTimeout(lift, 1);\nlift();\n", "lift", "lift", Meeting::Never},
    {"PhpNoThreads", "a.php", "<?php\nfunction lift() {}\nlift();\n", "lift", "lift", Meeting::Never},
    {"DifferentWork", "a.go", "package main\nfunc lift() {}\nfunc lower() {}\nfunc main() {\n\tgo lift()\n\tgo lower()\n}\n", "lift", "lower", Meeting::Certain},
    {"OnlyTheEntry", "a.go", "package main\nfunc lift() {}\nfunc lower() {}\nfunc main() {\n\tgo lift()\n\tlower()\n}\n", "lower", "lower", Meeting::Never},
    {"ThreadAndEntry", "a.go", "package main\nfunc lift() {}\nfunc lower() {}\nfunc main() {\n\tgo lift()\n\tlower()\n}\n", "lift", "lower", Meeting::Certain},
    {"BeforeAndThread", "a.go", "package main\nfunc lift() {}\nfunc lower() {}\nfunc main() {\n\tlower()\n\tgo lift()\n}\n", "lift", "lower", Meeting::Never},
};

std::string nameOf(const testing::TestParamInfo<Case>& info) { return info.param.name; }

INSTANTIATE_TEST_SUITE_P(Started, Meets, testing::ValuesIn(kStarted), nameOf);
INSTANTIATE_TEST_SUITE_P(Apart, Meets, testing::ValuesIn(kApart), nameOf);
INSTANTIATE_TEST_SUITE_P(Ordered, Meets, testing::ValuesIn(kOrdered), nameOf);
INSTANTIATE_TEST_SUITE_P(More, Meets, testing::ValuesIn(kMore), nameOf);
INSTANTIATE_TEST_SUITE_P(Untold, Meets, testing::ValuesIn(kUntold), nameOf);

// ----- ways and order

TEST(Threads, TellsTheCallsByWhichAThreadGetsThere) {
  Program p = programOf({"", "a.go", "package main\nfunc lift() {}\nfunc swing() { lift() }\nfunc work() { swing() }\nfunc main() {\n\tgo work()\n}\n", "", "", Meeting::Never});
  Threads threads(p, {false});
  ASSERT_EQ(threads.roots().size(), 1u);
  std::vector<uint32_t> lines;
  for (Place call : threads.wayTo(named(p, "lift"), 0)) lines.push_back(p.line(call));
  EXPECT_EQ(lines, (std::vector<uint32_t>{4, 3}));
}

TEST(Threads, KnowsWhatWasCalledBeforeAThreadIsStarted) {
  Program p = programOf({"", "a.py", "import threading\nclass Board:\n    def book(self):\n        pass\n    def maybe(self):\n        pass\n    def work(self):\n        pass\n    def __init__(self, wanted):\n        self.book()\n        if wanted:\n            self.maybe()\n        self.start()\n    def start(self):\n        threading.Thread(target=self.work).start()\n", "", "", Meeting::Never});
  Threads threads(p, {false});
  ASSERT_EQ(threads.roots().size(), 1u);
  EXPECT_TRUE(threads.calledBefore(named(p, "book"), 0));
  EXPECT_FALSE(threads.calledBefore(named(p, "maybe"), 0));
  EXPECT_FALSE(threads.calledBefore(named(p, "work"), 0));
  FunctionIndex maybe = named(p, "maybe");
  EXPECT_TRUE(threads.isApart({threads.sideOf(maybe), maybe, {}}, 0));
}

// A condition on the way, one of many answers to a call, and a question for the running thread.
TEST(Threads, CountsWhatIsGuessedOnTheWay) {
  auto guesses = [](const std::string& file, const std::string& source) {
    Program p = programOf({"", file.c_str(), source.c_str(), "", "", Meeting::Never});
    Threads threads(p, {false});
    return threads.roots().empty() ? size_t{99} : threads.guessesOnWay(named(p, "lift"), 0);
  };
  EXPECT_EQ(guesses("a.go", "package main\nfunc lift() {}\nfunc work() { lift() }\nfunc main() {\n\tgo work()\n}\n"), 0u);
  EXPECT_EQ(guesses("a.go", "package main\nvar on bool\nfunc lift() {}\nfunc work() {\n\tif on {\n\t\tlift()\n\t}\n}\nfunc main() {\n\tgo work()\n}\n"), 1u);
  EXPECT_EQ(guesses("A.java", "class A { boolean inEventLoop() { return true; } void lift() {} void work() { if (inEventLoop()) lift(); } public void order() { new Thread(this::work).start(); } }"), 4u);
  std::string many = "interface Part { void stop(); }\n";
  for (int i = 0; i < 10; ++i) many += "class P" + std::to_string(i) + " implements Part { public void stop() { " + (i == 9 ? "lift(); } void lift() {} }\n" : "} }\n");
  EXPECT_EQ(guesses("A.java", many + "class A { Part part; void work() { part.stop(); } public void order() { new Thread(this::work).start(); } }"), 4u);
}

TEST(Threads, WhatTestsStartSaysNothing) {
  Program p = programOf({"", "a.go", "package main\nfunc lift() {}\nfunc main() {\n\tgo lift()\n\tlift()\n}\n", "", "", Meeting::Never});
  EXPECT_EQ(Threads(p, {true}).roots().size(), 0u);
}

// ----- what was called before a thread of the root can be there, by way of a base class; the last root of the text is asked for

struct Before {
  const char* name;
  const char* source;
  bool before;
};
class CalledBefore : public testing::TestWithParam<Before> {};

TEST_P(CalledBefore, AsStated) {
  const Before& c = GetParam();
  std::string text = "#include <thread>\nvoid tick() {}\nvoid desk() {}\nvoid prepare() { desk(); }\nstruct Shift { virtual void begin() = 0; };\nstruct Night : Shift { void begin() override { std::thread([] { desk(); }).detach(); } };\n";
  Program p = programOf({c.name, "a.cpp", (text + c.source).c_str(), "", "", Meeting::Never});
  Threads threads(p, std::vector<bool>(p.files.size(), false));
  uint32_t root = kNone;
  for (uint32_t r = 0; r < threads.roots().size(); ++r)
    if (p.text(p.functions[threads.roots()[r].in].name) == "begin") root = r;
  ASSERT_NE(root, kNone);
  EXPECT_EQ(threads.calledBefore(named(p, "desk"), root), c.before);
}

INSTANTIATE_TEST_SUITE_P(All, CalledBefore, testing::Values(
    Before{"ByTheEntry", "int main() { std::thread(tick).detach(); prepare(); Night n; Shift* s = &n; s->begin(); }", true},
    Before{"Afterwards", "int main() { std::thread(tick).detach(); Night n; Shift* s = &n; s->begin(); prepare(); }", false},
    Before{"OnACondition", "int main(int count, char**) { std::thread(tick).detach(); if (count > 1) prepare(); Night n; Shift* s = &n; s->begin(); }", false},
    Before{"ByNobody", "int main() { std::thread(tick).detach(); Night n; Shift* s = &n; s->begin(); }", false}),
    [](const auto& info) { return std::string(info.param.name); });

// ----- what runs once

struct Once {
  const char* name;
  const char* source;
  bool once;  // the assignment to `lines`
};
class RunsOnce : public testing::TestWithParam<Once> {};

TEST_P(RunsOnce, AsStated) {
  const Once& c = GetParam();
  Program p = programOf({c.name, "Office.java", c.source, "", "", Meeting::Never});
  size_t asked = 0;
  for (const Use& use : p.uses)
    if (p.text(p.variables[use.variable].name) == "lines" && use.access == Access::Write && use.in != kNone) {
      ++asked;
      EXPECT_EQ(runsOnce(p, use.place, use.in), c.once);
    }
  EXPECT_EQ(asked, 1u);
}

INSTANTIATE_TEST_SUITE_P(All, RunsOnce, testing::Values(
    Once{"BehindAFlag", "class Office { static boolean begun; static int lines; static synchronized void begin() { if (begun) return; begun = true; lines = 2; } }", true},
    Once{"InTheBranch", "class Office { static boolean begun; static int lines; static synchronized void begin() { if (!begun) { begun = true; lines = 2; } } }", true},
    Once{"ByWhatOnlyThatCalls", "class Office { static boolean begun; static int lines; static synchronized void begin() { if (begun) return; begun = true; read(); } private static void read() { lines = 2; } }", true},
    Once{"CalledElsewhereToo", "class Office { static boolean begun; static int lines; static synchronized void begin() { if (begun) return; begun = true; read(); } static void read() { lines = 2; } static void again() { read(); } }", false},
    Once{"TakenBack", "class Office { static boolean begun; static int lines; static synchronized void begin() { if (begun) return; begun = true; lines = 2; } static void end() { begun = false; } }", false},
    Once{"WithoutALock", "class Office { static boolean begun; static int lines; static void begin() { if (begun) return; begun = true; lines = 2; } }", false},
    Once{"Unset", "class Office { static boolean begun; static int lines; static synchronized void begin() { if (begun) return; lines = 2; } }", false}),
    [](const auto& info) { return std::string(info.param.name); });

}  // namespace
