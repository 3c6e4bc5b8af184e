#include "probe/watch.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <fstream>
#include <map>
#include <set>
#include <sstream>

#include "base/text.h"
#include "confirm/process.h"
#include "confirm/scratch.h"
#include "languages/harness.h"
#include "probe/copies.h"
#include "rework/access.h"
#include "assess/registrations.h"

namespace elmcart {
namespace {

namespace fs = std::filesystem;

constexpr int kMostSeconds = 3600;

// What one process wrote.
struct ProcessEvents {
  struct Passed {
    int site = 0, thread = 0;
    long long count = 0, first = 0, last = 0;
  };
  struct Object {
    char kind = 'm';
    int thread = 0;
    long long when = 0;
    std::string what;
  };
  std::vector<Passed> passed;
  std::vector<Object> objects;
  long long first() const {
    long long out = INT64_MAX;
    for (const Passed& p : passed) out = std::min(out, p.first);
    for (const Object& o : objects) out = std::min(out, o.when);
    return out;
  }
};

void readText(const fs::path& path, ProcessEvents& out) {
  std::ifstream in(path);
  for (std::string line; std::getline(in, line);) {
    std::istringstream parts(line);
    char kind = 0;
    parts >> kind;
    if (kind == 's') {
      ProcessEvents::Passed p;
      if (parts >> p.site >> p.thread >> p.count >> p.first >> p.last) out.passed.push_back(p);
    } else if (kind == 'm' || kind == 'd') {
      ProcessEvents::Object o;
      o.kind = kind;
      if (parts >> o.thread >> o.when >> o.what) out.objects.push_back(o);
    }
  }
}

// Three numbers a place, as they lie in memory.
void readCounts(const fs::path& path, ProcessEvents& out) {
  std::ifstream in(path, std::ios::binary);
  int64_t row[3];
  for (int site = 0; in.read(reinterpret_cast<char*>(row), sizeof row); ++site)
    if (row[0] > 0) out.passed.push_back({site, 0, row[0], row[1], row[2]});
}

std::vector<ProcessEvents> processesIn(const std::string& folder) {
  std::map<std::string, ProcessEvents> byProcess;
  std::error_code error;
  for (const fs::directory_entry& entry : fs::directory_iterator(folder, error)) {
    ProcessEvents& one = byProcess[entry.path().stem().string()];
    if (entry.path().extension() == ".counts") readCounts(entry.path(), one);
    else readText(entry.path(), one);
  }
  std::vector<ProcessEvents> out;
  for (auto& [name, events] : byProcess)
    if (!events.passed.empty() || !events.objects.empty()) out.push_back(std::move(events));
  std::sort(out.begin(), out.end(), [](const ProcessEvents& x, const ProcessEvents& y) { return x.first() < y.first(); });
  return out;
}

class Watcher {
 public:
  Watcher(const std::string& path, const Config& config, const Analysis& a, size_t entity, const WatchOptions& options) : path_(path), config_(config), a_(a), p_(a.program), e_(a.survey.entities[entity]), options_(options) {}

  Result<WatchResult> run() {
    out_.entity = e_.id;
    const Language& language = p_.language(e_.place.file);
    if (!language.harness) return Error{e_.shown, "watching is not written yet in " + std::string(language.name)};
    auto scratch = Scratch::make();
    if (!scratch) return scratch.error();
    auto folder = copyOf(*scratch, path_, "watched", config_.gitignore);
    if (!folder) return folder.error();
    plan(*folder);
    WriterFiles files(*folder);
    auto harness = language.harness(files)->watch(plan_);
    if (!harness) return Error{e_.shown, harness.error().reason};
    // Where nothing changes, nothing is watched.
    if (harness->edits.empty()) return Error{e_.shown, "there is no place at which it could be watched"};
    HarnessFiles put(*folder);
    if (std::string reason = put.put(*harness); !reason.empty()) return Error{e_.shown, reason};
    std::string events = scratch->path() + "/events";
    std::error_code error;
    fs::create_directories(events, error);
    if (auto ran = runAll(*folder, events, *harness); !ran) return ran.error();
    read(processesIn(events));
    compare();
    return std::move(out_);
  }

 private:
  Spot spot(Place place) const { return place.known() ? Spot{&p_.files[place.file], place.node} : Spot{}; }

  void plan(const std::string& folder) {
    plan_.root = folder;
    plan_.home = spot(e_.place);
    if (e_.type != kNone && p_.types[e_.type].definition.known()) {
      plan_.type = spot(p_.types[e_.type].definition);
      plan_.typeName = std::string(p_.text(p_.types[e_.type].qualified));
    }
    std::set<std::pair<FileIndex, NodeId>> seen;
    for (const Consumer& c : e_.consumers) {
      Place access = accessOf(p_, e_, c.place);
      // What is done to it by a local that holds it was fetched before.
      if (!access.known() && !c.reach) continue;
      if (!access.known() || p_.node(access).has(kInMacro) || !isValue(access)) {
        ++out_.unwatched;
        continue;
      }
      if (!seen.insert({access.file, access.node}).second) continue;
      WatchedUser user;
      user.function = whereText(p_, c);
      user.file = p_.path(access);
      user.line = p_.line(access);
      user.tests = a_.config.tests.match(user.file);
      plan_.sites.push_back({spot(access), static_cast<int>(out_.users.size()), false});
      out_.users.push_back(std::move(user));
    }
    made();
  }

  // Only what is read there, and not written, declared or passed by its name.
  bool isValue(Place place) const {
    const Node& node = p_.node(place);
    if (node.kind == Kind::Call) return true;
    Place up = p_.parent(place);
    const Node& around = p_.node(up);
    bool target = (around.kind == Kind::Assign || around.kind == Kind::Update || around.kind == Kind::AddressOf) && p_.file(up).child(up.node, Role::Target) == place.node;
    return (node.kind == Kind::Name || node.kind == Kind::Member) && !target && around.kind != Kind::AddressOf && around.kind != Kind::Import && around.kind != Kind::Using && around.kind != Kind::Capture && around.kind != Kind::Destroy;
  }

  void made() {
    if (e_.type == kNone) return;
    std::vector<FunctionIndex> constructors = constructorsOf(p_, e_.type);
    for (FunctionIndex c : constructors)
      if (Place definition = p_.functions[c].definition; definition.known() && p_.file(definition).child(definition.node, Role::Body) != kNoNode) plan_.made.push_back(spot(definition));
    // One that only hands on to another does not count twice.
    std::erase_if(plan_.made, [&](Spot constructor) {
      const LoweredFile& file = *constructor.file;
      return std::any_of(p_.creations.begin(), p_.creations.end(), [&](const Creation& c) { return c.delegated && &p_.files[c.place.file] == &file && p_.isInside(c.place, constructor.node); });
    });
    // Without a constructor, where it is made.
    if (plan_.made.empty())
      for (uint32_t c : p_.creationsOfType[e_.type]) {
        const Creation& creation = p_.creations[c];
        const Node& node = p_.node(creation.place);
        if (creation.asBase || creation.delegated || node.kind != Kind::Create || p_.languageOf[creation.place.file]->id != p_.language(e_.place.file).id) continue;
        plan_.sites.push_back({spot(creation.place), static_cast<int>(plan_.sites.size()), true});
      }
    out_.makingSeen = !plan_.made.empty() || std::any_of(plan_.sites.begin(), plan_.sites.end(), [](const WatchSite& site) { return site.makes; });
    FunctionIndex end = endOf(p_, e_.type);
    if (end != kNone && p_.functions[end].definition.known() && p_.functions[end].owner == e_.type) plan_.ends.push_back(spot(p_.functions[end].definition));
  }

  Result<Done> runAll(const std::string& folder, const std::string& events, const Harness& harness) {
    RunOptions run;
    run.folder = folder;
    run.stop = config_.stop.get();
    run.seconds = std::max(config_.buildSeconds, 1);
    run.environment = harness.environment;
    std::vector<std::string> build = harness.build;
    build.insert(build.end(), config_.build.begin(), config_.build.end());
    for (const std::string& command : build) {
      if (options_.progress) options_.progress("building: " + command);
      auto done = runCommand(command, run);
      if (!done) return done.error();
      if (done->stopped) return Error{"", "interrupted"};
      if (!done->ok()) return Error{"the watched copy does not build", command + ": " + cutSaid(*done)};
    }
    if (!options_.command.empty()) out_.commands.push_back(options_.command);
    else {
      out_.commands = config_.test;
      for (const Witness& witness : config_.witnesses) out_.commands.push_back(witness.command);
    }
    if (out_.commands.empty()) return Error{"", "nothing to run: give [test] commands in elmcart.toml, or --run COMMAND"};
    run.environment.push_back("ELMCART_PROBE_EVENTS=" + events);
    run.seconds = options_.command.empty() ? config_.testSeconds : kMostSeconds;
    std::string said;
    for (const std::string& command : out_.commands) {
      if (options_.progress) options_.progress("watching: " + command);
      auto done = runCommand(command, run);
      if (!done) return done.error();
      if (done->stopped) return Error{"", "interrupted"};
      out_.seconds += done->seconds;
      if (!done->ok()) out_.exitCode = done->exitCode != 0 ? done->exitCode : 1, said = cutSaid(*done);
    }
    // Tests that fail are the project's own affair; where nothing ran at all, they tell why.
    std::error_code error;
    if (out_.exitCode != 0 && fs::is_empty(events, error)) return Error{"nothing was seen, and the command failed", said};
    return Done{};
  }

  void read(const std::vector<ProcessEvents>& processes) {
    out_.processes = processes.size();
    long long begun = INT64_MAX;
    for (const ProcessEvents& one : processes) begun = std::min(begun, one.first());
    auto since = [&](long long when) { return static_cast<double>(when - begun) / 1e6; };
    size_t watchedUsers = out_.users.size();
    for (size_t process = 0; process < processes.size(); ++process) {
      const ProcessEvents& one = processes[process];
      std::map<int, std::set<int>> threads;
      for (const ProcessEvents::Passed& p : one.passed) {
        if (p.site < 0 || static_cast<size_t>(p.site) >= plan_.sites.size()) continue;
        // What is made at a place that is counted only: so many at once.
        if (static_cast<size_t>(p.site) >= watchedUsers || plan_.sites[static_cast<size_t>(p.site)].makes) {
          for (long long i = 0; i < p.count && out_.instances.size() < 10000; ++i) out_.instances.push_back({static_cast<int>(process) + 1, p.thread, since(i == 0 ? p.first : p.last), -1});
          continue;
        }
        WatchedUser& user = out_.users[static_cast<size_t>(p.site)];
        bool isFirst = user.count == 0;
        user.count += static_cast<size_t>(p.count);
        user.first = isFirst ? since(p.first) : std::min(user.first, since(p.first));
        user.last = isFirst ? since(p.last) : std::max(user.last, since(p.last));
        if (p.thread > 0) threads[p.site].insert(p.thread);
        firstUse_.try_emplace(process + 1, since(p.first));
        firstUse_[process + 1] = std::min(firstUse_[process + 1], since(p.first));
      }
      for (auto& [site, each] : threads) out_.users[static_cast<size_t>(site)].threads = std::max(out_.users[static_cast<size_t>(site)].threads, each.size());
      std::map<std::string, size_t> alive;
      for (const ProcessEvents::Object& o : one.objects) {
        if (o.kind == 'm') {
          alive[o.what] = out_.instances.size();
          out_.instances.push_back({static_cast<int>(process) + 1, o.thread, since(o.when), -1});
        } else if (auto found = alive.find(o.what); found != alive.end()) {
          out_.instances[found->second].ended = since(o.when);
          alive.erase(found);
        }
      }
      for (const ProcessEvents::Passed& p : one.passed) usedBy_[process + 1].insert(p.thread);
    }
    std::map<int, size_t> byProcess;
    for (const WatchedInstance& i : out_.instances)
      if (++byProcess[i.process] > out_.instancesMost) out_.instancesMost = byProcess[i.process], out_.busiest = i.process;
    std::stable_sort(out_.instances.begin(), out_.instances.end(), [](const WatchedInstance& x, const WatchedInstance& y) { return x.milliseconds < y.milliseconds; });
    std::stable_sort(out_.users.begin(), out_.users.end(), [](const WatchedUser& x, const WatchedUser& y) { return x.count > y.count; });
  }

  void say(bool asSaid, const std::string& text) {
    out_.compared.push_back((asSaid ? "as surveyed: " : "not as surveyed: ") + text);
    out_.contradicted |= !asSaid;
  }

  void compare() {
    size_t used = 0;
    for (const WatchedUser& user : out_.users) used += user.count;
    if (out_.processes == 0) return;
    bool single = e_.kind == EntityKind::Singleton;
    if (!single && out_.instancesMost > 1) out_.compared.push_back(fmt::format("{} objects of its class are made in one process: it is one of them", out_.instancesMost));
    if (out_.makingSeen && single && !out_.instances.empty()) say(out_.instancesMost == 1, out_.instancesMost == 1 ? "one is made in a process" : fmt::format("one is meant to be made, and {} were made in one process", out_.instancesMost));
    // The first of each process, against the first use there.
    std::map<int, double> firstMade;
    for (const WatchedInstance& i : out_.instances) firstMade.try_emplace(i.process, i.milliseconds);
    size_t early = 0, late = 0;
    for (auto& [process, when] : firstMade) {
      auto use = firstUse_.find(static_cast<size_t>(process));
      if (use == firstUse_.end() || when < use->second) ++early;
      else ++late;
    }
    if (!firstMade.empty() && e_.creation.time == CreationTime::Eager && out_.unwatched == 0) say(late == 0, late == 0 ? "it is made before its first use" : fmt::format("it is said to be made at the start, and was made by its first use in {}", counted(late, "process", "processes")));
    if (!firstMade.empty() && e_.creation.time == CreationTime::Lazy && out_.unwatched == 0) say(early == 0, early == 0 ? "it is made by its first use" : fmt::format("it is said to be made on first use, and was made without one in {}", counted(early, "process", "processes")));
    size_t most = 0;
    for (auto& [process, threads] : usedBy_) most = std::max(most, threads.size());
    if (most > 1) say(e_.creation.guard != GuardSort::SingleThreaded && e_.kind != EntityKind::ThreadLocal, fmt::format("{} threads of one process fetch it{}", most, e_.creation.guard == GuardSort::SingleThreaded ? ", and its creation is for one thread only" : ""));
    if (!out_.instances.empty() && used == 0) out_.compared.push_back("it is made, and was never fetched where that could be watched");
    if (used > 0 && e_.slot == kNone && out_.instances.empty() && out_.makingSeen) out_.compared.push_back("it is fetched, and no making of it was seen");
  }

  const std::string& path_;
  const Config& config_;
  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  const WatchOptions& options_;
  WatchPlan plan_;
  WatchResult out_;
  std::map<size_t, double> firstUse_;            // by process
  std::map<size_t, std::set<int>> usedBy_;  // by process: threads
};

}  // namespace

Result<WatchResult> watch(const std::string& path, const Config& config, const Analysis& analysis, size_t entity, const WatchOptions& options) { return Watcher(path, config, analysis, entity, options).run(); }

}  // namespace elmcart
