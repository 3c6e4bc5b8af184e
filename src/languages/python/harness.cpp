// Harnesses in Python: a script that imports the module in question.
#include "languages/harness.h"

#include <filesystem>

#include "base/text.h"
#include "languages/python/python.h"

namespace elmcart {
namespace {

constexpr std::string_view kSupport = R"(import asyncio
import os
import sys
import threading
import time

_MOST = 1 << 14
_events = []
_begun = time.perf_counter_ns()
_gap = int(os.environ.get("ELMCART_PROBE_GAP", "0")) / 1000
_numbers = {}
_own = threading.local()
ended = []


def _number():
    try:
        task = asyncio.current_task()
    except RuntimeError:
        task = None
    if task is not None:
        name = task.get_name()
        return int(name[8:]) if name.startswith("elmcart-") else 1000
    return getattr(_own, "number", 1000)


def note(kind, what="0"):
    if len(_events) < _MOST:
        _events.append((kind, _number(), time.perf_counter_ns() - _begun, what))


def gap(value):
    note("i")
    try:
        asyncio.get_running_loop()
    except RuntimeError:
        time.sleep(_gap)
    note("o", str(value) if isinstance(value, (int, float)) else "0")
    return value


def heard(subscriber):
    if any(each is subscriber for each in ended):
        note("h")


def write():
    path = os.environ.get("ELMCART_PROBE_EVENTS")
    with open(path, "w", encoding="utf-8") if path else sys.stdout as out:
        for event in _events:
            out.write("%s %d %d %s\n" % event)


def _identity(got):
    return "0" if got is None or isinstance(got, (int, float, str)) else str(id(got))


def race(call):
    count = int(os.environ.get("ELMCART_PROBE_THREADS", "4"))
    barrier = threading.Barrier(count)
    kept = []

    def run(number):
        _own.number = number
        barrier.wait()
        note("c")
        try:
            got = call()
            kept.append(got)  # so that no two objects have one address
            note("g", _identity(got))
        except Exception as failure:
            note("x", repr(failure).replace("\n", " "))

    threads = [threading.Thread(target=run, args=(i + 1,), daemon=True) for i in range(count)]
    for each in threads:
        each.start()
    for each in threads:
        each.join()
    write()
    sys.stdout.flush()
    os._exit(0)


def race_tasks(call):
    count = int(os.environ.get("ELMCART_PROBE_THREADS", "4"))
    kept = []

    async def run():
        note("c")
        try:
            got = await call()
            kept.append(got)
            note("g", _identity(got))
        except Exception as failure:
            note("x", repr(failure).replace("\n", " "))

    async def all_of_them():
        await asyncio.gather(*(asyncio.create_task(run(), name="elmcart-%d" % (i + 1)) for i in range(count)))

    asyncio.run(all_of_them())
    write()
    sys.stdout.flush()
    os._exit(0)
)";

constexpr std::string_view kCost = R"(import functools
import os
import sys
import threading
import time


class Desk:
    pass


_lock = threading.Lock()
_locked = None
_checked = None
_eager = Desk()


def lock_each_time():
    global _locked
    with _lock:
        if _locked is None:
            _locked = Desk()
        return _locked


def double_check():
    global _checked
    if _checked is None:
        with _lock:
            if _checked is None:
                _checked = Desk()
    return _checked


@functools.lru_cache(maxsize=None)
def cached():
    return Desk()


def eager():
    return _eager


class Clerk:
    def __init__(self, desk):
        self.desk = desk

    def field(self):
        return self.desk


def _loop(access, count):
    for _ in range(count):
        access()


def _measure(out, form, access, rounds, most):
    count = 1000
    while True:
        begun = time.perf_counter_ns()
        _loop(access, count)
        if time.perf_counter_ns() - begun > 5000000:
            break
        count *= 2
    threads = 1
    while threads <= most:
        for _ in range(rounds):
            spent = []
            barrier = threading.Barrier(threads)

            def run():
                barrier.wait()
                begun = time.perf_counter_ns()
                _loop(access, count)
                spent.append(time.perf_counter_ns() - begun)

            all_of_them = [threading.Thread(target=run) for _ in range(threads)]
            for each in all_of_them:
                each.start()
            for each in all_of_them:
                each.join()
            out.write("t %d %.4f %s\n" % (threads, sum(spent) / threads / count, form))
        threads *= 2


def run(own):
    rounds = int(os.environ.get("ELMCART_PROBE_ROUNDS", "11"))
    most = int(os.environ.get("ELMCART_PROBE_THREADS", "4"))
    path = os.environ.get("ELMCART_PROBE_EVENTS")
    with open(path, "w", encoding="utf-8") if path else sys.stdout as out:
        begun = time.perf_counter_ns()
        own()
        out.write("f 1 %d as it is\n" % (time.perf_counter_ns() - begun))
        _measure(out, "as it is", own, rounds, most)
        for form, access in (("double check", double_check), ("lock at each access", lock_each_time), ("cached function", cached), ("eager", eager), ("injected field", Clerk(_eager).field)):
            _measure(out, form, access, rounds, most)
    sys.stdout.flush()
    os._exit(0)
)";

constexpr std::string_view kWatch = R"(import atexit
import os
import threading
import time

_passed = {}
_made = []
_own = threading.local()
_next = [0]
_lock = threading.Lock()


def _number():
    try:
        return _own.number
    except AttributeError:
        with _lock:
            _next[0] += 1
            _own.number = _next[0]
        return _own.number


def at(site):
    key = (site, _number())
    now = time.time_ns()
    counted = _passed.get(key)
    if counted is None:
        _passed[key] = [1, now, now]
    else:
        counted[0] += 1
        counted[2] = now


def event(kind, what):
    if len(_made) < 1 << 14:
        _made.append((kind, _number(), time.time_ns(), id(what)))


def write():
    folder = os.environ.get("ELMCART_PROBE_EVENTS")
    if not folder:
        return
    with open(os.path.join(folder, str(os.getpid())), "w", encoding="utf-8") as out:
        for (site, thread), (count, first, last) in list(_passed.items()):
            out.write("s %d %d %d %d %d\n" % (site, thread, count, first, last))
        for each in list(_made):
            out.write("%s %d %d %d\n" % each)


atexit.register(write)
if hasattr(os, "register_at_fork"):
    os.register_at_fork(after_in_child=lambda: (_passed.clear(), _made.clear()))
)";

class PythonHarness final : public HarnessWriter {
 public:
  using HarnessWriter::HarnessWriter;

  Result<Harness> write(const ProbePlan& plan) override {
    Harness out;
    out.needs = "python3";
    out.package = "python3";
    widen(plan, out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, probeOf("note(\"m\")"), out.edits);
    std::string missing, before, call = callText(plan, missing, before), body;
    if (plan.scenario == ProbeScenario::Ended) {
      if (!plan.ends.at.known()) return Error{plan.file, "nothing says when an object of " + plan.subscriber.ownerName + " ends"};
      std::string made = inBrackets(plan.subscriber, missing), ended = inBrackets(plan.ends, missing), self = selfOf(plan.heard.at);
      atBegin(plan.heard.at, probeOf("heard(" + self + ")"), out.edits);
      body = before + "subscriber = " + named(plan, plan.subscriber.ownerName, plan.subscriber.owner.file->path) + made + "\nsubscriber." + plan.ends.name + ended + "\nelmcart_probe.ended.append(subscriber)\nelmcart_probe.note(\"d\")\n" + call + "\nelmcart_probe.write()\n";
    } else {
      body = before + "elmcart_probe." + (isAsync(plan.call) ? "race_tasks" : "race") + "(lambda: " + call + ")\n";
    }
    out.missing = missing;
    script(plan, body, out);
    return out;
  }

  Result<Harness> cost(const ProbePlan& plan) override {
    Harness out;
    out.needs = "python3";
    out.package = "python3";
    std::string missing, before, call = callText(plan, missing, before);
    out.missing = missing;
    if (isAsync(plan.call)) return Error{plan.file, "an access that waits has no cost of its own"};
    // Without arguments the function is called as such, so that no call of ours is measured with it.
    std::string own = call.ends_with("()") ? call.substr(0, call.size() - 2) : "lambda: " + call;
    script(plan, before + "import elmcart_cost\nelmcart_cost.run(" + own + ")\n", out);
    out.files.push_back({"elmcart_cost.py", std::string(kCost)});
    return out;
  }

  Result<Harness> watch(const WatchPlan& plan) override {
    Harness out;
    auto probe = [](const std::string& what) { return "__import__(\"elmcart_watch\")." + what; };
    for (const WatchSite& site : plan.sites) around(site.at, "(" + probe("at(" + std::to_string(site.number) + "), "), ")[1]", out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, probe("event(\"m\", " + selfOf(constructor) + ")"), out.edits);
    for (Spot end : plan.ends) atBegin(end, probe("event(\"d\", " + selfOf(end) + ")"), out.edits);
    out.files.push_back({"elmcart_probe_watch/elmcart_watch.py", std::string(kWatch)});
    out.environment.push_back("PYTHONPATH=" + plan.root + "/elmcart_probe_watch" + (std::getenv("PYTHONPATH") ? ":" + std::string(std::getenv("PYTHONPATH")) : ""));
    return out;
  }

 protected:
  std::string gapCall() const override { return probeOf("gap("); }
  // Without a type, what a name and a number can both be asked.
  std::string madeUp(const ProbeParameter& parameter) const override {
    if (parameter.type == "str") return "\"elmcart\"";
    if (parameter.type == "float") return "1.0";
    if (parameter.type == "bool") return "True";
    if (parameter.mayBeNull) return "None";
    return parameter.type.empty() || parameter.type == "int" || parameter.type == "object" || parameter.type == "Any" ? "1" : "";
  }

  std::string nameOf(const ProbePlan& plan, const ProbeFunction& function) const override { return named(plan, function.qualified, function.at.file->path); }
  std::string slotName(const ProbePlan& plan) const override { return named(plan, plan.slot, plan.slotFile); }
  std::string newObject(const ProbePlan& plan, const ProbeFunction& function) const override { return named(plan, function.ownerName, function.owner.file->path) + "()"; }
  std::string keepObject(const ProbeFunction&, const std::string& object) const override { return std::string(kObject) + " = " + object + "\n"; }

 private:
  static void script(const ProbePlan& plan, const std::string& body, Harness& out) {
    out.shown = "elmcart_probe_run.py";
    std::string folders;
    for (const std::string& path : plan.declaring()) folders += "os.path.join(ROOT, " + quoted(moduleOf(plan.root, path).folder) + "), ";
    out.files.push_back({"elmcart_probe.py", std::string(kSupport)});
    out.files.push_back({out.shown, "import importlib\nimport os\nimport sys\n\nROOT = os.path.dirname(os.path.abspath(__file__))\nsys.path[:0] = [" + folders + "ROOT]\nsys.setswitchinterval(1e-5)\nimport elmcart_probe\n\nof = importlib.import_module\n" + body});
    out.run = "python3 elmcart_probe_run.py";
  }
  // What a method calls its object.
  std::string selfOf(Spot method) {
    TSNode function = tree(method).covering({method->nameBegin, method->nameBegin}, {"function_definition"}), first = SyntaxTree::named(SyntaxTree::field(function, "parameters"), 0);
    return SyntaxTree::isNull(first) ? "self" : std::string(tree(method).text(first));
  }
  bool isAsync(const ProbeFunction& function) {
    TSNode definition = tree(function.at).covering({function.at->nameBegin, function.at->nameBegin}, {"function_definition"});
    return tree(function.at).text(definition).starts_with("async");
  }
  static std::string probeOf(const std::string& what) { return "__import__(\"elmcart_probe\")." + what; }
  static std::string quoted(const std::string& text) { return "\"" + text + "\""; }
  struct Module {
    std::string name, folder;  // the folder in which it is looked for
  };
  // A module's name is made of the packages around it.
  static Module moduleOf(const std::string& root, const std::string& path) {
    Module out;
    std::string module = path.substr(0, path.rfind('.'));
    size_t cut = module.rfind('/');
    out.folder = cut == std::string::npos ? "" : module.substr(0, cut);
    out.name = module.substr(cut == std::string::npos ? 0 : cut + 1);
    while (!out.folder.empty() && std::filesystem::exists(root + "/" + out.folder + "/__init__.py")) {
      size_t up = out.folder.rfind('/');
      out.name = out.folder.substr(up == std::string::npos ? 0 : up + 1) + "." + out.name;
      out.folder = up == std::string::npos ? "" : out.folder.substr(0, up);
    }
    if (out.name.ends_with(".__init__")) out.name.resize(out.name.size() - 9);
    return out;
  }
  // What a qualified name, which begins with the path of its file, is called from outside.
  static std::string named(const ProbePlan& plan, std::string_view qualified, const std::string& file) {
    std::string name = joined(qualified, "."), path = file.substr(0, file.rfind('.'));
    for (char& c : path) if (c == '/') c = '.';
    if (path.ends_with(".__init__")) path.resize(path.size() - 9);
    // The longest end of the file's path with which the name begins.
    for (size_t cut = 0; cut != std::string::npos; cut = path.find('.', cut), cut += cut != std::string::npos)
      if (std::string module = path.substr(cut); name.starts_with(module + ".")) {
        name = name.substr(module.size() + 1);
        break;
      }
    return "of(" + quoted(moduleOf(plan.root, file).name) + ")." + name;
  }
};

}  // namespace

std::unique_ptr<HarnessWriter> pythonHarness(WriterFiles& files) { return std::make_unique<PythonHarness>(files); }

}  // namespace elmcart
