// Harnesses in C++: a program that includes the file in question, so that it sees what is private to it.
#include "languages/harness.h"

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <set>

#include "base/text.h"
#include "languages/cpp/cpp.h"

namespace elmcart {
namespace {

// Included by the code that is widened: C++11.
constexpr std::string_view kSupport = R"(#pragma once
#include <atomic>
#include <chrono>
#include <cstdlib>
#include <thread>
#include <type_traits>
#include <utility>

namespace elmcart_probe {

struct Event {
  char kind;
  int thread;
  long long when;
  long long what;
};

struct State {
  static const unsigned most = 1u << 14;
  std::atomic<unsigned> used;
  std::atomic<int> threads;
  Event events[most];
  std::chrono::steady_clock::time_point begun;
  int gap;
  State() : used(0), threads(1000), begun(std::chrono::steady_clock::now()), gap(0) {
    if (const char* given = std::getenv("ELMCART_PROBE_GAP")) gap = std::atoi(given);
  }
};

// Never destroyed: code that runs at the end notes events, too.
inline State& state() {
  static State* made = new State;
  return *made;
}

inline int& thread() {
  static thread_local int number = state().threads++;
  return number;
}

inline void note(char kind, long long what) {
  State& s = state();
  unsigned at = s.used++;
  if (at >= State::most) return;
  s.events[at] = Event{kind, thread(), std::chrono::duration_cast<std::chrono::nanoseconds>(std::chrono::steady_clock::now() - s.begun).count(), what};
}

template <class T>
long long numberOf(const T& value, std::true_type) { return static_cast<long long>(value); }
template <class T>
long long numberOf(const T&, std::false_type) { return 0; }

template <class T>
typename std::decay<T>::type gap(T&& value) {
  typename std::decay<T>::type held(std::forward<T>(value));
  note('i', 0);
  std::this_thread::sleep_for(std::chrono::milliseconds(state().gap));
  note('o', numberOf(held, std::integral_constant<bool, std::is_arithmetic<typename std::decay<T>::type>::value>()));
  return held;
}

}  // namespace elmcart_probe
)";

// The harness's own part: C++17.
constexpr std::string_view kRun = R"(
#include <condition_variable>
#include <cstdio>
#include <exception>
#include <memory>
#include <mutex>
#include <string>
#include <vector>

namespace elmcart_probe {

template <class T>
auto pointed(T& value, int) -> decltype(static_cast<const volatile void*>(value.get()), 0ll) { return reinterpret_cast<long long>(value.get()); }
template <class T>
long long pointed(T& value, long) { return reinterpret_cast<long long>(std::addressof(value)); }

template <class F>
long long identity(F call) {
  using Result = decltype(call());
  if constexpr (std::is_void_v<Result>) {
    call();
    return 0;
  } else if constexpr (std::is_pointer_v<std::decay_t<Result>>) {
    return reinterpret_cast<long long>(call());
  } else if constexpr (std::is_reference_v<Result>) {
    auto&& result = call();
    return pointed(result, 0);
  } else if constexpr (std::is_class_v<Result>) {
    auto result = call();
    long long own = reinterpret_cast<long long>(std::addressof(result)), told = pointed(result, 0);
    return told == own ? 0 : told;
  } else {
    call();
    return 0;
  }
}

template <class T>
auto object(T&& value, int) -> decltype((*value)) { return *value; }
template <class T>
T&& object(T&& value, long) { return static_cast<T&&>(value); }

inline void write() {
  const char* path = std::getenv("ELMCART_PROBE_EVENTS");
  std::FILE* out = path ? std::fopen(path, "w") : stdout;
  if (!out) std::exit(3);
  unsigned count = state().used < State::most ? state().used.load() : State::most;
  for (unsigned i = 0; i < count; ++i) std::fprintf(out, "%c %d %lld %lld\n", state().events[i].kind, state().events[i].thread, state().events[i].when, state().events[i].what);
  if (out != stdout) std::fclose(out);
}

template <class F>
int race(F call) {
  const char* given = std::getenv("ELMCART_PROBE_THREADS");
  int count = given ? std::atoi(given) : 4, ready = 0;
  std::mutex mutex;
  std::condition_variable all;
  std::vector<std::thread> threads;
  for (int i = 1; i <= count; ++i)
    threads.emplace_back([&, i] {
      thread() = i;
      {
        std::unique_lock<std::mutex> lock(mutex);
        if (++ready == count) all.notify_all();
        all.wait(lock, [&] { return ready == count; });
      }
      note('c', 0);
      try {
        note('g', identity(call));
      } catch (...) {
        note('x', 0);
      }
    });
  for (std::thread& each : threads) each.join();
  write();
  std::_Exit(0);
}

}  // namespace elmcart_probe
)";

// The forms stand beside the project's own with an object of their own.
constexpr std::string_view kCost = R"(
#include <atomic>
#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <memory>
#include <mutex>
#include <thread>
#include <vector>

namespace elmcart_probe {

struct Desk {
  int value = 1;
};
inline void use(const volatile void* object) { asm volatile("" : : "r"(object) : "memory"); }

__attribute__((noinline)) Desk* functionLocal() {
  static Desk desk;
  return &desk;
}
std::once_flag flag;
Desk* onceDesk;
__attribute__((noinline)) Desk* callOnce() {
  std::call_once(flag, [] { onceDesk = new Desk; });
  return onceDesk;
}
std::atomic<Desk*> checkedDesk{nullptr};
std::mutex checkedMutex;
__attribute__((noinline)) Desk* doubleCheck() {
  Desk* desk = checkedDesk.load(std::memory_order_acquire);
  if (desk == nullptr) {
    std::lock_guard<std::mutex> lock(checkedMutex);
    desk = checkedDesk.load(std::memory_order_relaxed);
    if (desk == nullptr) checkedDesk.store(desk = new Desk, std::memory_order_release);
  }
  return desk;
}
Desk* lockedDesk;
std::mutex lockedMutex;
__attribute__((noinline)) Desk* lockEachTime() {
  std::lock_guard<std::mutex> lock(lockedMutex);
  if (lockedDesk == nullptr) lockedDesk = new Desk;
  return lockedDesk;
}
Desk eagerDesk;
__attribute__((noinline)) Desk* eager() { return &eagerDesk; }
struct Clerk {
  Desk* desk;
  __attribute__((noinline)) Desk* field() const { return desk; }
};
Clerk clerk{&eagerDesk};

template <class T>
const volatile void* addressOf(T* object) { return object; }
template <class T>
const volatile void* addressOf(const T& object) { return &object; }

template <class T>
auto object(T&& value, int) -> decltype((*value)) { return *value; }
template <class T>
T&& object(T&& value, long) { return static_cast<T&&>(value); }

template <class F>
void measure(std::FILE* out, const char* form, F access, int rounds, int most) {
  constexpr long long kLeast = 4000000;  // nanoseconds of a round
  auto loop = [&](long long count) {
    for (long long i = 0; i < count; ++i) access();
  };
  auto now = [] { return std::chrono::duration_cast<std::chrono::nanoseconds>(std::chrono::steady_clock::now().time_since_epoch()).count(); };
  long long count = 1000;
  for (;; count *= 2) {
    long long begun = now();
    loop(count);
    if (now() - begun > kLeast || count > (1 << 26)) break;
  }
  for (int threads = 1; threads <= most; threads *= 2)
    for (int round = 0; round < rounds; ++round) {
      std::atomic<int> ready{0};
      std::vector<std::thread> all;
      std::vector<long long> spent(static_cast<std::size_t>(threads));
      for (int t = 0; t < threads; ++t)
        all.emplace_back([&, t] {
          ++ready;
          while (ready < threads) {
          }
          long long begun = now();
          loop(count);
          spent[static_cast<std::size_t>(t)] = now() - begun;
        });
      for (std::thread& each : all) each.join();
      double sum = 0;
      for (long long each : spent) sum += static_cast<double>(each);
      std::fprintf(out, "t %d %.4f %s\n", threads, sum / threads / static_cast<double>(count), form);
    }
}

template <class F>
int cost(F own) {
  auto number = [](const char* name, int otherwise) { const char* given = std::getenv(name); return given ? std::atoi(given) : otherwise; };
  int rounds = number("ELMCART_PROBE_ROUNDS", 11), most = number("ELMCART_PROBE_THREADS", 4);
  const char* path = std::getenv("ELMCART_PROBE_EVENTS");
  std::FILE* out = path ? std::fopen(path, "w") : stdout;
  if (!out) return 3;
  auto begun = std::chrono::steady_clock::now();
  own();
  std::fprintf(out, "f 1 %lld as it is\n", static_cast<long long>(std::chrono::duration_cast<std::chrono::nanoseconds>(std::chrono::steady_clock::now() - begun).count()));
  measure(out, "as it is", own, rounds, most);
  measure(out, "function-local static", [] { use(functionLocal()); }, rounds, most);
  measure(out, "call once", [] { use(callOnce()); }, rounds, most);
  measure(out, "double check", [] { use(doubleCheck()); }, rounds, most);
  measure(out, "lock at each access", [] { use(lockEachTime()); }, rounds, most);
  measure(out, "eager", [] { use(eager()); }, rounds, most);
  measure(out, "injected field", [] { use(clerk.field()); }, rounds, most);
  std::fclose(out);
  std::_Exit(0);
}

}  // namespace elmcart_probe
)";

// Included by the project's own files: C++11, without a warning, with nothing that could meet a name of theirs.
constexpr std::string_view kWatch = R"(#pragma once
#pragma GCC system_header
#include <pthread.h>
#include <unistd.h>

#include <atomic>
#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <string>

namespace elmcart_probe {

struct Passed {
  std::atomic<long long> count, first, last;
};
struct Made {
  char kind;
  int thread;
  long long when;
  const void* what;
};
struct Watch {
  static const int sites = SITES;
  static const int threads = 16;
  static const unsigned most = 1u << 14;
  Passed passed[sites][threads];
  std::atomic<int> next;
  std::atomic<unsigned> used;
  Made made[most];
};

inline Watch& watch();

inline void write() {
  const char* folder = std::getenv("ELMCART_PROBE_EVENTS");
  if (!folder) return;
  Watch& w = watch();
  std::FILE* out = std::fopen((std::string(folder) + "/" + std::to_string(::getpid())).c_str(), "w");
  if (!out) return;
  for (int site = 0; site < Watch::sites; ++site)
    for (int thread = 0; thread < Watch::threads; ++thread)
      if (w.passed[site][thread].count > 0) std::fprintf(out, "s %d %d %lld %lld %lld\n", site, thread + 1, w.passed[site][thread].count.load(), w.passed[site][thread].first.load(), w.passed[site][thread].last.load());
  for (unsigned i = 0; i < w.used && i < Watch::most; ++i) std::fprintf(out, "%c %d %lld %llu\n", w.made[i].kind, w.made[i].thread, w.made[i].when, static_cast<unsigned long long>(reinterpret_cast<std::size_t>(w.made[i].what)));
  std::fclose(out);
}

// Never destroyed: what runs at the end is counted, too, by the second writing.
inline Watch& watch() {
  static Watch* made = [] {
    Watch* w = static_cast<Watch*>(std::calloc(1, sizeof(Watch)));
    std::atexit(write);
    // A forked process counts for itself.
    ::pthread_atfork(nullptr, nullptr, [] { std::memset(static_cast<void*>(&watch()), 0, sizeof(Watch)); });
    return w;
  }();
  return *made;
}

inline int thread() {
  static thread_local int number = ++watch().next;
  return number < Watch::threads ? number : Watch::threads;
}

inline long long now() { return std::chrono::duration_cast<std::chrono::nanoseconds>(std::chrono::system_clock::now().time_since_epoch()).count(); }

inline void at(int site) {
  Passed& p = watch().passed[site][thread() - 1];
  long long time = now();
  if (p.count.fetch_add(1, std::memory_order_relaxed) == 0) p.first.store(time, std::memory_order_relaxed);
  p.last.store(time, std::memory_order_relaxed);
}

inline void event(char kind, const void* what) {
  Watch& w = watch();
  unsigned at = w.used++;
  if (at < Watch::most) w.made[at] = Made{kind, thread(), now(), what};
}

// Of an object that ends behind all else: what was written is written again.
inline void end(const void* what) {
  event('d', what);
  static bool registered = false;
  if (!registered) registered = true, std::atexit(write);
}

}  // namespace elmcart_probe
)";

// For the end of a CMakeLists.txt: a target beside the one that has the file.
constexpr std::string_view kBeside = R"(
# ----- a harness beside the target that has the file
cmake_policy(SET CMP0057 NEW)
cmake_policy(SET CMP0054 NEW)
function(elmcart_probe_targets folder out)
  get_property(found DIRECTORY ${folder} PROPERTY BUILDSYSTEM_TARGETS)
  get_property(below DIRECTORY ${folder} PROPERTY SUBDIRECTORIES)
  foreach(each ${below})
    elmcart_probe_targets(${each} more)
    list(APPEND found ${more})
  endforeach()
  set(${out} ${found} PARENT_SCOPE)
endfunction()
elmcart_probe_targets(${CMAKE_CURRENT_SOURCE_DIR} elmcart_targets)
set(elmcart_users@USERS@)
set(elmcart_best "")
set(elmcart_rank 9)
foreach(target ${elmcart_targets})
  get_target_property(type ${target} TYPE)
  get_target_property(sources ${target} SOURCES)
  get_target_property(folder ${target} SOURCE_DIR)
  set(rank 9)
  if(type MATCHES "^(STATIC|SHARED)_LIBRARY$")
    set(rank 1)
  elseif(type STREQUAL "EXECUTABLE")
    set(rank 2)
  endif()
  if(rank LESS elmcart_rank AND sources)
    foreach(source ${sources})
      get_filename_component(whole "${source}" ABSOLUTE BASE_DIR "${folder}")
      if("${whole}" IN_LIST elmcart_users)
        set(elmcart_best ${target})
        set(elmcart_rank ${rank})
        break()
      endif()
    endforeach()
  endif()
endforeach()
if(elmcart_best STREQUAL "")
  message(FATAL_ERROR "no target has the file: @FILE@")
endif()
)";

// All of the target's sources in two programs, in both orders; their own main is another's name.
constexpr std::string_view kOrders = R"(
get_target_property(sources ${elmcart_best} SOURCES)
get_target_property(folder ${elmcart_best} SOURCE_DIR)
set(elmcart_sources "")
foreach(source ${sources})
  get_filename_component(whole "${source}" ABSOLUTE BASE_DIR "${folder}")
  if(NOT whole MATCHES "\\.(h|hh|hpp|hxx)$")
    list(APPEND elmcart_sources "${whole}")
    set_source_files_properties("${whole}" PROPERTIES COMPILE_DEFINITIONS "main=elmcart_own_main")
  endif()
endforeach()
foreach(order 0 1)
  add_executable(elmcart_probe_${order} EXCLUDE_FROM_ALL "${CMAKE_CURRENT_LIST_DIR}/elmcart_probe.cpp" ${elmcart_sources})
  set_target_properties(elmcart_probe_${order} PROPERTIES RUNTIME_OUTPUT_DIRECTORY "${CMAKE_BINARY_DIR}")
  foreach(property INCLUDE_DIRECTORIES COMPILE_DEFINITIONS COMPILE_OPTIONS CXX_STANDARD LINK_LIBRARIES LINK_OPTIONS)
    get_target_property(value ${elmcart_best} ${property})
    if(value)
      set_property(TARGET elmcart_probe_${order} PROPERTY ${property} "${value}")
    endif()
  endforeach()
  # From C++20 on strings are compiled with the code that uses them, so that the sanitizer sees what they read.
  get_target_property(standard elmcart_probe_${order} CXX_STANDARD)
  if(NOT standard OR standard LESS 20 OR standard EQUAL 98)
    set_target_properties(elmcart_probe_${order} PROPERTIES CXX_STANDARD 20)
  endif()
  list(REVERSE elmcart_sources)
endforeach()
)";

constexpr std::string_view kBesideHarness = R"(set(elmcart_sources "${CMAKE_CURRENT_LIST_DIR}/elmcart_probe.cpp")
if(elmcart_rank EQUAL 2)
  get_target_property(sources ${elmcart_best} SOURCES)
  get_target_property(folder ${elmcart_best} SOURCE_DIR)
  foreach(source ${sources})
    get_filename_component(whole "${source}" ABSOLUTE BASE_DIR "${folder}")
    if(NOT whole STREQUAL "@ROOT@/@FILE@")
      list(APPEND elmcart_sources "${whole}")
    endif()
  endforeach()
endif()
add_executable(elmcart_probe EXCLUDE_FROM_ALL ${elmcart_sources})
set_source_files_properties("${CMAKE_CURRENT_LIST_DIR}/elmcart_probe.cpp" PROPERTIES COMPILE_OPTIONS "-fno-access-control")
get_target_property(elmcart_standard ${elmcart_best} CXX_STANDARD)
if(NOT elmcart_standard OR elmcart_standard LESS 17 OR elmcart_standard EQUAL 98)
  set(elmcart_standard 17)
endif()
set_target_properties(elmcart_probe PROPERTIES CXX_STANDARD ${elmcart_standard} RUNTIME_OUTPUT_DIRECTORY "${CMAKE_BINARY_DIR}")
if(elmcart_rank EQUAL 1)
  target_link_libraries(elmcart_probe PRIVATE ${elmcart_best})
  target_include_directories(elmcart_probe PRIVATE $<TARGET_PROPERTY:${elmcart_best},INCLUDE_DIRECTORIES>)
  target_compile_definitions(elmcart_probe PRIVATE $<TARGET_PROPERTY:${elmcart_best},COMPILE_DEFINITIONS>)
else()
  foreach(property INCLUDE_DIRECTORIES COMPILE_DEFINITIONS COMPILE_OPTIONS LINK_LIBRARIES LINK_OPTIONS)
    get_target_property(value ${elmcart_best} ${property})
    if(value)
      set_property(TARGET elmcart_probe PROPERTY ${property} "${value}")
    endif()
  endforeach()
  target_compile_definitions(elmcart_probe PRIVATE ELMCART_PROBE)
  foreach(source ${elmcart_sources})
    if(NOT source MATCHES "elmcart_probe.cpp$")
      set_source_files_properties("${source}" PROPERTIES COMPILE_DEFINITIONS "main=elmcart_own_main")
    endif()
  endforeach()
endif()
find_package(Threads REQUIRED)
target_link_libraries(elmcart_probe PRIVATE Threads::Threads)
)";

class CppHarness final : public HarnessWriter {
 public:
  using HarnessWriter::HarnessWriter;

  Result<Harness> write(const ProbePlan& plan) override {
    if (plan.scenario == ProbeScenario::Order) return orders(plan);
    Harness out = begin();
    widen(plan, out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, "elmcart_probe::note('m', 0);", out.edits);
    std::string missing, body;
    if (plan.scenario == ProbeScenario::Ended) body = endedBody(plan, missing);
    else {
      std::string before, call = callText(plan, missing, before);
      body = before + "  return elmcart_probe::race([&]() -> decltype(auto) { return " + call + "; });\n";
    }
    out.missing = missing;
    include("elmcart_probe.h", plan.root, out.edits);
    out.files.push_back({"elmcart_probe.h", std::string(kSupport)});
    out.files.push_back({"elmcart_probe.cpp", "#include \"" + plan.root + "/elmcart_probe.h\"\n#define main elmcart_own_main\n" + includesOf(plan) + "#undef main\n" + std::string(kRun) + "\nint main() {\n" + body + "}\n"});
    build(plan, out);
    return out;
  }

  Result<Harness> cost(const ProbePlan& plan) override {
    Harness out = begin();
    std::string missing, before, call = callText(plan, missing, before);
    out.missing = missing;
    out.files.push_back({"elmcart_probe.cpp", "#define main elmcart_own_main\n" + includesOf(plan) + "#undef main\n" + std::string(kCost) + "\nint main() {\n" + before + "  return elmcart_probe::cost([&] { elmcart_probe::use(elmcart_probe::addressOf(" + call + ")); });\n}\n"});
    build(plan, out, "-O2");
    return out;
  }

  Result<Harness> watch(const WatchPlan& plan) override {
    Harness out;
    std::string support(kWatch);
    support.replace(support.find("SITES"), 5, std::to_string(plan.sites.size() + 1));
    for (const WatchSite& site : plan.sites) around(site.at, "(elmcart_probe::at(" + std::to_string(site.number) + "), ", ")", out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, "elmcart_probe::event('m', this);", out.edits);
    for (Spot end : plan.ends) atBegin(end, "elmcart_probe::end(this);", out.edits);
    include("elmcart_probe_watch.h", plan.root, out.edits);
    out.files.push_back({"elmcart_probe_watch.h", support});
    return out;
  }

 protected:
  std::string gapCall() const override { return "elmcart_probe::gap("; }
  std::string madeUp(const ProbeParameter& parameter) const override {
    std::string_view type = parameter.type;
    if (parameter.mayBeNull) return type == "char" ? "\"elmcart\"" : "nullptr";
    if (type == "std::string" || type == "string" || type == "std::string_view" || type == "string_view") return "\"elmcart\"";
    if (type == "bool") return "true";
    static const std::set<std::string_view> numbers = {"int", "unsigned", "unsigned int", "long", "unsigned long", "long long", "unsigned long long", "short", "unsigned short", "char", "size_t", "std::size_t",
                                                       "float", "double", "int8_t", "int16_t", "int32_t", "int64_t", "uint8_t", "uint16_t", "uint32_t", "uint64_t", "std::int32_t", "std::int64_t", "std::uint32_t", "std::uint64_t", "std::uint8_t"};
    if (numbers.contains(type)) return "1";
    return type.empty() || type == "auto" ? "" : type.find('<') == std::string_view::npos ? std::string(type) + "{}" : "";
  }

  std::string nameOf(const ProbePlan&, const ProbeFunction& function) const override { return function.qualified; }
  std::string slotName(const ProbePlan& plan) const override { return plan.slot; }
  std::string newObject(const ProbePlan&, const ProbeFunction& function) const override { return "new " + function.ownerName + "()"; }
  std::string keepObject(const ProbeFunction&, const std::string& object) const override { return "  auto&& " + std::string(kObject) + " = elmcart_probe::object(" + object + ", 0);\n"; }

 private:
  static Harness begin() {
    Harness out;
    out.needs = "c++";
    out.package = "g++";
    out.shown = "elmcart_probe.cpp";
    return out;
  }
  static std::string includesOf(const ProbePlan& plan) {
    std::string includes = "#include \"" + plan.root + "/" + plan.file + "\"\n";
    for (const std::string& path : plan.declaring())
      if (path != plan.file && isHeader(path)) includes += "#include \"" + plan.root + "/" + path + "\"\n";
    return includes;
  }
  static void include(const std::string& header, const std::string& root, std::vector<FileEdit>& edits) {
    std::set<std::string> touched;
    for (const FileEdit& edit : edits) touched.insert(edit.path);
    // Behind the mark of the byte order, where there is one.
    auto begin = [&](const std::string& path) -> uint32_t {
      char first[3] = {};
      std::ifstream(root + "/" + path, std::ios::binary).read(first, 3);
      return std::string_view(first, 3) == "\xEF\xBB\xBF" ? 3 : 0;
    };
    for (const std::string& path : touched) edits.push_back({path, {begin(path), begin(path)}, "#include \"" + root + "/" + header + "\"\n"});
  }
  std::string endedBody(const ProbePlan& plan, std::string& missing) const {
    const ProbeFunction& made = plan.subscriber;
    std::string before, given = inBrackets(made, missing), called = callText(plan, missing, before);
    std::string text = before + "  auto* subscriber = new " + made.ownerName + given + ";\n";
    text += "  delete subscriber;\n  elmcart_probe::note('d', 0);\n  elmcart_probe::write();\n  " + called + ";\n  elmcart_probe::write();\n  std::_Exit(0);\n";
    return text;
  }

  static bool isHeader(const std::string& path) {
    std::span<const std::string_view> headers = languageById("cpp")->headerExtensions;
    return std::any_of(headers.begin(), headers.end(), [&](std::string_view extension) { return path.ends_with(extension); });
  }

  // The target that has the file, and one beside it that has the harness.
  static std::string besideTarget(const ProbePlan& plan, std::string_view what) {
    bool source = !isHeader(plan.file);
    std::string users;
    for (const std::string& path : plan.files)
      if (path == plan.file || !source) users += "\n    \"" + plan.root + "/" + path + "\"";
    return replaced(replaced(replaced(std::string(kBeside) + std::string(what), "@USERS@", users), "@ROOT@", plan.root), "@FILE@", plan.file);
  }

  Result<Harness> orders(const ProbePlan& plan) const {
    Harness out = begin();
    out.files.push_back({out.shown, "int main() { return 0; }\n"});
    std::string lists = nearestLists(plan), program = "./elmcart_probe_";
    if (!lists.empty()) {
      std::string folder = lists.substr(0, lists.size() - std::string("CMakeLists.txt").size());
      out.files.push_back({lists, besideTarget(plan, kOrders)});
      if (!folder.empty()) out.files.push_back({folder + "elmcart_probe.cpp", "int main() { return 0; }\n"});
      out.build.push_back("cmake -S \"./" + folder + "\" -B elmcart_probe_orders -DCMAKE_BUILD_TYPE=Debug -DCMAKE_CXX_FLAGS=-fsanitize=address -DCMAKE_EXE_LINKER_FLAGS=-fsanitize=address");
      out.build.push_back("cmake --build elmcart_probe_orders --target elmcart_probe_0 elmcart_probe_1 -j 2");
      program = "./elmcart_probe_orders/elmcart_probe_";
    } else {
      std::string compiler = "${CXX:-c++} -pthread -g -fsanitize=address", files;
      for (const std::string& path : plan.files) files += " \"" + path + "\"";
      out.build.push_back("n=1000; for f in" + files + "; do n=$((n + 1)); " + compiler + " -std=c++20 -O0 -w -Dmain=elmcart_own_main -c \"$f\" -o elmcart_part_$n.o || exit 1; done");
      out.build.push_back(compiler + " elmcart_probe.cpp elmcart_part_*.o -o elmcart_probe_0");
      out.build.push_back(compiler + " elmcart_probe.cpp $(ls -r elmcart_part_*.o) -o elmcart_probe_1");
    }
    // Only what is not made yet counts, not what might not be in another order: both are run.
    out.run = "ASAN_OPTIONS=check_initialization_order=1:strict_init_order=0:detect_leaks=0 " + program + "$((ELMCART_PROBE_RUN % 2))";
    return out;
  }

  void build(const ProbePlan& plan, Harness& out, const std::string& level = "-O1") {
    // What ends is watched by the sanitizer of the compiler, where it has one.
    std::string sanitize = plan.scenario == ProbeScenario::Ended ? " -fsanitize=address" : "", quoted = "\"" + plan.root + "/elmcart_probe.cpp\"";
    std::string lists = nearestLists(plan);
    if (!lists.empty()) {
      std::string folder = lists.substr(0, lists.size() - std::string("CMakeLists.txt").size());
      out.files.push_back({lists, besideTarget(plan, kBesideHarness)});
      if (!folder.empty()) out.files.push_back({folder + "elmcart_probe.cpp", "#include \"" + plan.root + "/elmcart_probe.cpp\"\n"});
      std::string source = folder.empty() ? "." : "\"" + folder + "\"";
      std::string built = sanitize.empty() ? "elmcart_probe_build" : "elmcart_probe_checked";
      out.build.push_back("cmake -S " + source + " -B " + built + " -DCMAKE_BUILD_TYPE=RelWithDebInfo" + (sanitize.empty() ? "" : " -DCMAKE_CXX_FLAGS=-fsanitize=address -DCMAKE_EXE_LINKER_FLAGS=-fsanitize=address"));
      out.build.push_back("cmake --build " + built + " --target elmcart_probe -j 2");
      out.run = "./" + built + "/elmcart_probe";
      return;
    }
    out.build.push_back("${CXX:-c++} -std=c++20 -pthread -g " + level + " -w -fno-access-control" + sanitize + " " + quoted + " -o elmcart_probe_program");
    out.run = "./elmcart_probe_program";
  }

  // The uppermost CMakeLists.txt above the file.
  std::string nearestLists(const ProbePlan& plan) const {
    for (size_t at = 0; at != std::string::npos; at = plan.file.find('/', at), at += at != std::string::npos) {
      std::string lists = plan.file.substr(0, at) + "CMakeLists.txt";
      if (std::filesystem::exists(plan.root + "/" + lists)) return lists;
    }
    return "";
  }
};

}  // namespace

std::unique_ptr<HarnessWriter> cppHarness(WriterFiles& files) { return std::make_unique<CppHarness>(files); }

}  // namespace elmcart
