#include "rework/rework.h"

#include <fcntl.h>
#include <sys/stat.h>

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <fstream>
#include <optional>
#include <set>

#include "base/text.h"
#include "confirm/scratch.h"
#include "rework/access.h"
#include "rework/costs.h"
#include "rework/moves.h"
#include "source/ignore.h"
#include "source/walk.h"

namespace elmcart {
namespace fs = std::filesystem;
namespace {

using Clock = std::chrono::steady_clock;
double since(Clock::time_point mark) { return std::chrono::duration<double>(Clock::now() - mark).count(); }

// Figures for the table before/after.
std::map<std::string, int> figures(const Analysis& a, const std::string& id, bool ofState) {
  std::map<std::string, int> out;
  std::set<std::string> classes;
  int calls = 0;
  for (const Entity& e : a.survey.entities) {
    if (e.id != id) continue;
    std::set<std::pair<FileIndex, NodeId>> places;
    for (const Consumer& c : e.consumers) {
      Place access = c.alias != kNone || e.type == kNone ? Place{} : accessOf(a.program, e, c.place);
      if (!access.known() && c.reach) access = c.place;
      if (!access.known() || !places.emplace(access.file, access.node).second) continue;
      ++calls;
      TypeIndex owner = c.in == kNone ? kNone : a.program.functions[c.in].owner;
      if (owner != kNone) classes.insert(std::string(a.program.text(a.program.types[owner].qualified)));
    }
  }
  if (ofState) {
    out["places that fetch it"] = calls;
    out["classes that fetch it"] = static_cast<int>(classes.size());
  }
  int findings = 0;
  for (const Finding& f : a.assessment.findings) findings += f.subject == id;
  out["findings about it"] = findings;
  out["findings in all"] = static_cast<int>(a.assessment.findings.size());
  out["pieces of shared state"] = static_cast<int>(std::count_if(a.survey.entities.begin(), a.survey.entities.end(), [](const Entity& e) { return !e.harmless; }));
  return out;
}

// One run of a move: makes step after step in a scratch copy and keeps those that change no behaviour.
class Run {
 public:
  Run(const std::string& rootPath, const Config& config, const std::string& entityId, const ReworkOptions& options)
      : rootPath_(rootPath), config_(config), entityId_(entityId), options_(options) {}

  Result<ReworkResult> go() {
    auto started = Clock::now();
    if (auto error = begin()) return *error;
    if (auto error = learn()) return *error;
    if (options_.series && options_.confirm) {
      if (auto error = series()) return *error;
    } else {
      while (out_.steps.size() < options_.mostSteps && !out_.interrupted) {
        auto trial = plan(out_.steps.size() + 1);
        if (!trial) return trial.error();
        if (!*trial) break;
        if (!(*trial)->failed.empty()) takeBack(**trial, (*trial)->failed);
        else if (options_.confirm) confirm(**trial);
        else keep(**trial, "planned");
        tell(**trial);
      }
    }
    if (auto error = end()) return *error;
    out_.seconds = since(started);
    return std::move(out_);
  }

 private:
  using Failure = std::optional<Error>;

  // A step on trial: what it replaced, so that it can be taken back.
  struct Trial {
    StepRecord record;
    PlanMemory memory, memoryBefore;
    std::map<std::string, std::string> old;
    std::set<std::string> fresh;  // files that the step makes
    std::string failed;           // why it cannot be made
  };

  void say(const std::string& line) const {
    if (options_.progress) options_.progress(line);
  }

  Result<std::unique_ptr<Analysis>> look(const std::string& path, bool judge) {
    auto sources = readTree(path, loadOptionsOf(config_, options_.jobs));
    if (!sources) return sources.error();
    return analyse(std::move(*sources), config_, options_.jobs, judge, lowered_.get());
  }

  bool ofState() const { return move_->of == MoveTarget::State; }
  std::string slotOf(const Analysis& a, size_t entity) const {
    VariableIndex v = ofState() ? a.survey.entities[entity].slot : kNone;
    return v == kNone ? "" : std::string(a.program.text(a.program.variables[v].qualified));
  }

  Failure begin() {
    std::error_code error;
    std::string root = fs::canonical(rootPath_, error).string();
    if (error) return Error{rootPath_, error.message()};
    removeStrayScratch();
    auto scratch = Scratch::make();
    if (!scratch) return scratch.error();
    scratch_.emplace(std::move(*scratch));
    // Only what a step changed is read anew: the rest is kept as it was lowered.
    std::string why;
    lowered_ = Cache::open(scratch_->path() + "/lowered", why);
    auto first = look(root, true);
    if (!first) return first.error();
    first_ = std::move(*first);
    move_ = moveById(options_.move, options_.of);
    if (!move_) return Error{options_.move, "no such move"};
    entity_ = targetOf(*first_, *move_, entityId_);
    if (entity_ == SIZE_MAX) return Error{entityId_, ofState() ? "no such entity" : move_->of == MoveTarget::Class ? "no such class" : "no such function"};
    if (std::string refusal = refusalOf(*move_, *first_, entity_); !refusal.empty()) return Error{entityId_, options_.move + " cannot be made: " + refusal};
    slot_ = slotOf(*first_, entity_);
    auto copied = scratch_->copyTree(root, "tree", config_.gitignore);
    if (!copied) return copied.error();
    tree_ = *copied;
    memory_.retire = options_.retire;
    memory_.only = options_.files;
    out_.entity = entityId_;
    out_.move = options_.move;
    out_.before = figures(*first_, entityId_, ofState());
    return {};
  }

  // What the tree does as it is.
  Failure learn() {
    if (!options_.confirm) return {};
    say("baseline: building and testing the tree as it is, " + std::to_string(config_.baselineRuns) + " times");
    markUnread();
    out_.baseline = learnBaseline(tree_, config_);
    noteUnread();
    const Observation& seen = out_.baseline.observation;
    if (config_.stopAsked()) return Error{rootPath_, "interrupted before any step was made"};
    if (!seen.built) return Error{rootPath_, "does not build as it is, so no step could be judged:\n" + seen.buildOutput};
    for (const std::string& problem : seen.problems) say(problem);
    bool looked = !seen.tests.empty() || seen.totals.told;
    if (!config_.test.empty() && seen.testExit != 0 && !looked)
      return Error{rootPath_, "the test command fails as it is (exit code " + std::to_string(seen.testExit) + ") and names no test, so no step could be judged:\n" + seen.testOutput};
    size_t flaky = out_.baseline.flakyTests.size();
    say("baseline: " + counted(std::max(seen.tests.size(), seen.totals.run), "test", "tests") + (seen.totals.run > seen.tests.size() ? " (" + std::to_string(seen.tests.size()) + " by name)" : "") + ", " + counted(seen.witnesses.size(), "witness", "witnesses") +
        (flaky == 0 ? "" : ", " + counted(flaky, "test is flaky and set aside", "tests are flaky and set aside")));
    return {};
  }

  // Makes the next step in the scratch copy; nothing where there is none.
  Result<std::optional<Trial>> plan(size_t number) {
    auto own = Clock::now();
    auto now = look(tree_, false);
    if (!now) return now.error();
    size_t at = targetOf(**now, *move_, entityId_);
    // What a step makes of it may go by another name; its slot tells that it is the same.
    for (size_t i = 0; at == SIZE_MAX && !slot_.empty() && i < (*now)->survey.entities.size(); ++i)
      if (slotOf(**now, i) == slot_) at = i;
    if (at == SIZE_MAX || !refusalOf(*move_, **now, at).empty()) {
      out_.finished = true;
      out_.byHand.clear();
      return std::optional<Trial>();
    }
    Trial trial;
    trial.memory = trial.memoryBefore = memory_;
    NextStep planned = move_->next(**now, at, trial.memory);
    out_.byHand.clear();
    out_.left.clear();
    for (ByHand& place : planned.byHand) (place.left ? out_.left : out_.byHand).push_back(std::move(place));
    out_.finished = planned.finished;
    // The kinds of a move come one after another: what is not asked for ends it.
    if (!planned.found || (!options_.only.empty() && !options_.only.count(planned.step.kind))) return std::optional<Trial>();
    trial.record.number = number;
    trial.record.step = planned.step;
    if (auto error = write(trial)) return *error;
    trial.record.ownSeconds = since(own);
    if (trial.failed.empty() && trial.record.patch.empty()) trial.failed = "it would change nothing";
    constexpr int kMostTimes = 20;
    if (trial.failed.empty() && ++times_[planned.step.key()] > kMostTimes) trial.failed = "it was made many times, and comes again";
    return std::optional<Trial>(std::move(trial));
  }

  void tell(Trial& trial) {
    const StepRecord& r = trial.record;
    say("step " + std::to_string(r.number) + (options_.expectedSteps > 0 ? " of " + std::to_string(std::max(options_.expectedSteps, r.number)) : "") + ", " + std::string(stepKindText(r.step.kind)) + ": " + r.step.title + " — " + r.outcome);
    out_.steps.push_back(std::move(trial.record));
  }

  // All steps at once, then one build and test; where anything differs, halving finds the step that does it. That
  // one is taken back, and those behind it, which may rest on it, are planned anew.
  Failure series() {
    std::vector<Trial> open;
    while (out_.steps.size() + open.size() < options_.mostSteps && !out_.interrupted) {
      auto trial = plan(out_.steps.size() + open.size() + 1);
      if (!trial) return trial.error();
      if (*trial && (*trial)->failed.empty()) {
        memory_ = (*trial)->memory;
        memory_.made.insert((*trial)->record.step.key());
        open.push_back(std::move(**trial));
        if (out_.steps.size() + open.size() < options_.mostSteps) continue;
      } else if (*trial) {
        takeBack(**trial, (*trial)->failed);
        tell(**trial);
        continue;
      }
      if (open.empty()) break;
      say("checking " + counted(open.size(), "step", "steps") + " at once");
      if (auto error = check(open)) return error;
    }
    return {};
  }

  // Keeps the open steps that change no behaviour, and takes the first that does back; nothing is open then.
  Failure check(std::vector<Trial>& open) {
    Comparison all = tryTree(open.back().record, changeOf(open, open.size()));
    if (out_.interrupted) {
      undo(open, 0);
      open.clear();
      return {};
    }
    size_t good = all.same() ? open.size() : 0, bad = open.size(), standing = open.size();
    Comparison culprit = all;
    while (!all.same() && bad - good > 1) {
      size_t middle = (good + bad) / 2;
      stand(open, standing, middle);
      Comparison half = tryTree(open[middle - 1].record, changeOf(open, middle));
      if (out_.interrupted) break;
      say(counted(middle, "step", "steps") + (half.same() ? " as before" : ": it differs"));
      if (half.same()) good = middle;
      else bad = middle, culprit = half;
    }
    stand(open, standing, good);
    for (size_t i = 0; i < good; ++i) {
      open[i].record.kept = true;
      open[i].record.outcome = all.same() ? all.summary() + ", in the series" : "as before, in the series";
      out_.retired |= open[i].record.step.endsAccessor;
      if (isUnbuilt(open[i])) notConfirmed(open[i].record);
      tell(open[i]);
    }
    if (good < open.size()) {
      Trial& first = open[good];
      memory_ = first.memoryBefore;
      if (!out_.interrupted) {
        memory_.refused.insert(first.record.step.key());
        first.record.differences = culprit.differences;
        first.record.outcome = "taken back: " + reasonOf(culprit);
        tell(first);
      }
    }
    open.clear();
    return {};
  }
  // Writes the tree as it is after so many of the open steps.
  void stand(std::vector<Trial>& open, size_t& now, size_t wanted) {
    for (; now > wanted; --now) restore(open[now - 1]);
    for (; now < wanted; ++now)
      for (auto& [path, text] : open[now].record.texts) writeText(tree_ + "/" + path, text);
  }
  void undo(std::vector<Trial>& open, size_t to) {
    size_t now = open.size();
    stand(open, now, to);
    memory_ = open[to].memoryBefore;
  }
  // What so many of them change together, by path the texts before and after.
  static std::map<std::string, std::pair<std::string, std::string>> changeOf(const std::vector<Trial>& open, size_t count) {
    std::map<std::string, std::pair<std::string, std::string>> out;
    for (size_t i = 0; i < count; ++i)
      for (auto& [path, text] : open[i].record.texts) out.try_emplace(path, open[i].old.at(path), "").first->second.second = text;
    return out;
  }

  // Makes the edits in the scratch copy, keeping the old texts.
  Failure write(Trial& trial) {
    std::map<std::string, std::vector<FileEdit>> byFile;
    for (const FileEdit& edit : trial.record.step.edits) byFile[edit.path].push_back(edit);
    for (auto& [path, edits] : byFile) {
      std::error_code error;
      std::string place = tree_ + "/" + path;
      bool isNew = !fs::exists(place, error);
      auto text = isNew ? Result<std::string>(std::string()) : readWhole(place);
      if (!text) return text.error();
      auto changed = applyEdits(*text, edits);
      if (!changed) {
        trial.failed = changed.error().line();
        return {};
      }
      if (isNew) trial.fresh.insert(path);
      trial.old[path] = *text;
      if (original_.emplace(path, *text).second && isNew) made_.insert(path);
      trial.record.files.push_back(path);
      trial.record.texts[path] = *changed;
      trial.record.patch += unifiedDiff(path, *text, *changed, isNew);
      if (!writeText(place, *changed)) return Error{path, "cannot be written in the scratch copy"};
    }
    return {};
  }

  void restore(const Trial& trial) {
    std::error_code error;
    for (auto& [path, text] : trial.old) {
      if (trial.fresh.count(path)) fs::remove(tree_ + "/" + path, error);
      else writeText(tree_ + "/" + path, text);
    }
  }

  void takeBack(Trial& trial, const std::string& why) {
    restore(trial);
    memory_.refused.insert(trial.record.step.key());
    trial.record.outcome = "taken back: " + why;
  }

  void keep(Trial& trial, std::string outcome) {
    trial.record.kept = true;
    out_.retired |= trial.record.step.endsAccessor;
    trial.record.outcome = std::move(outcome);
    memory_ = trial.memory;
    memory_.made.insert(trial.record.step.key());
  }

  Comparison tryOnce(StepRecord& record, const std::map<std::string, std::pair<std::string, std::string>>& change) {
    Observation seen = observe(tree_, config_);
    auto own = Clock::now();
    record.buildSeconds += seen.buildSeconds;
    record.testSeconds += seen.testSeconds;
    Comparison comparison = compare(out_.baseline, seen, change);
    record.ownSeconds += since(own);
    return comparison;
  }
  // Builds and tests the tree as it is. A test may fail now and then though no run of the baseline showed it: twice as
  // before outweighs once otherwise; seen again, it is the step's doing.
  Comparison tryTree(StepRecord& record, const std::map<std::string, std::pair<std::string, std::string>>& change) {
    Comparison comparison = tryOnce(record, change);
    once_.clear();
    if (!config_.stopAsked() && !comparison.same() && comparison.differences.front().what != "build") {
      once_ = toldAs(comparison.differences.front(), "then");
      bool same = true;
      for (int again = 0; again < 2 && same; ++again) {
        comparison = tryOnce(record, change);
        same = comparison.same();
      }
    }
    out_.interrupted = config_.stopAsked();
    return comparison;
  }
  static std::string toldAs(const Difference& d, const char* then) { return d.what + " " + d.name + " was " + d.before + ", " + then + " " + d.after; }
  static std::string reasonOf(const Comparison& comparison) {
    const Difference& d = comparison.differences.front();
    return d.what == "build" ? "it does not build" : toldAs(d, "now");
  }

  // Builds and tests the tree with the step in it.
  void confirm(Trial& trial) {
    StepRecord& record = trial.record;
    if (options_.tamper) options_.tamper(tree_, record.step);
    std::map<std::string, std::pair<std::string, std::string>> change;
    for (auto& [path, text] : record.texts) change[path] = {trial.old[path], text};
    Comparison comparison = tryTree(record, change);
    if (out_.interrupted) return takeBack(trial, "interrupted before it was confirmed");
    record.differences = comparison.differences;
    if (!comparison.same()) return takeBack(trial, reasonOf(comparison));
    keep(trial, comparison.summary() + (once_.empty() ? "" : "; in the first of three runs only, " + once_));
    if (isUnbuilt(trial)) notConfirmed(record);
  }

  // ----- files that the build and the tests do not look at

  template <typename Visit>
  void eachFile(Visit visit) const {
    std::error_code error;
    for (fs::recursive_directory_iterator it(tree_, error), end; !error && it != end; it.increment(error)) {
      struct stat info {};
      if (it->is_regular_file(error) && ::stat(it->path().c_str(), &info) == 0) visit(it->path(), info);
    }
  }
  // Before the baseline is learnt every file is as if it had been read long ago.
  void markUnread() {
    eachFile([](const fs::path& path, const struct stat& info) {
      struct timespec times[2] = {{info.st_mtim.tv_sec - 1, 0}, info.st_mtim};
      ::utimensat(AT_FDCWD, path.c_str(), times, 0);
    });
  }
  void noteUnread() {
    eachFile([&](const fs::path& path, const struct stat& info) {
      if (info.st_atim.tv_sec == info.st_mtim.tv_sec - 1 && info.st_atim.tv_nsec == 0) unread_.insert(path.lexically_relative(tree_).string());
    });
  }
  // None of the step's files was read by build or tests, and text that is no code changes nothing in any of them.
  bool isUnbuilt(const Trial& trial) {
    bool all = !trial.record.files.empty();
    for (const std::string& path : trial.record.files) all &= !trial.fresh.count(path) && unread_.count(path) > 0 && isCanarySilent(path);
    return all;
  }
  bool isCanarySilent(const std::string& path) {
    if (auto known = silent_.find(path); known != silent_.end()) return known->second;
    auto text = readWhole(tree_ + "/" + path);
    if (!text || config_.stopAsked()) return false;
    writeText(tree_ + "/" + path, *text + "\n)]} no code (((\n");
    Observation seen = observe(tree_, config_);
    writeText(tree_ + "/" + path, *text);
    out_.interrupted |= config_.stopAsked();
    if (out_.interrupted) return false;
    return silent_[path] = seen.built && compare(out_.baseline, seen).same();
  }
  static void notConfirmed(StepRecord& record) {
    record.unbuilt = true;
    record.outcome = "not confirmed: its files are not built or loaded here";
  }

  // What the steps have changed, in figures, findings and files.
  Failure end() {
    auto last = look(tree_, true);
    if (!last) return last.error();
    out_.after = figures(**last, entityId_, ofState());
    std::set<std::string> before, after;
    for (const Finding& f : first_->assessment.findings) before.insert(f.id);
    for (const Finding& f : (*last)->assessment.findings) after.insert(f.id);
    std::set_difference(before.begin(), before.end(), after.begin(), after.end(), std::back_inserter(out_.findingsGone));
    std::set_difference(after.begin(), after.end(), before.begin(), before.end(), std::back_inserter(out_.findingsCome));
    for (auto& [path, text] : original_) {
      auto now = readWhole(tree_ + "/" + path);
      if (now && (*now != text || made_.count(path))) out_.files.push_back({path, text, *now, made_.count(path) > 0});
    }
    out_.costs = costsOf(*first_, entity_, out_);
    return {};
  }

  const std::string& rootPath_;
  const Config& config_;
  const std::string& entityId_;
  const ReworkOptions& options_;
  std::optional<Scratch> scratch_;
  std::unique_ptr<Cache> lowered_;
  std::unique_ptr<Analysis> first_;
  const Move* move_ = nullptr;
  size_t entity_ = SIZE_MAX;
  std::string slot_, tree_;
  PlanMemory memory_;
  std::map<std::string, int> times_;     // how often a step of that key was planned
  std::string once_;                     // what differed in one of three runs only
  std::set<std::string> unread_;         // files that neither build nor tests read, as they were
  std::map<std::string, bool> silent_;   // does text that is no code change nothing in it?
  std::map<std::string, std::string> original_;
  std::set<std::string> made_;  // of these, what was not there at all
  ReworkResult out_;
};

}  // namespace

Result<ReworkResult> rework(const std::string& rootPath, const Config& config, const std::string& entityId, const ReworkOptions& options) {
  return Run(rootPath, config, entityId, options).go();
}

Result<std::vector<std::string>> writePatches(const ReworkResult& result, const std::string& folder) {
  std::error_code error;
  fs::create_directories(folder, error);
  if (error) return Error{folder, "cannot be made: " + error.message()};
  // Patches of an earlier run would mix with these.
  for (fs::directory_iterator it(folder, error), end; !error && it != end; it.increment(error)) {
    std::string name = it->path().filename().string();
    if (name.size() > 9 && isdigit(static_cast<unsigned char>(name[0])) && isdigit(static_cast<unsigned char>(name[1])) && it->path().extension() == ".patch") fs::remove(it->path(), error);
  }
  std::vector<std::string> out;
  size_t number = 0;
  for (const StepRecord& record : result.steps) {
    if (!record.kept) continue;
    std::string words;
    for (char c : lastPart(record.step.subject)) {
      if (std::isalnum(static_cast<unsigned char>(c))) words += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
      else if (!words.empty() && words.back() != '-') words += '-';
      if (words.size() > 40) break;
    }
    while (!words.empty() && words.back() == '-') words.pop_back();
    char head[16];
    std::snprintf(head, sizeof head, "%03zu", ++number);
    std::string path = folder + "/" + head + "-" + std::string(stepKindText(record.step.kind)) + "-" + words + ".patch";
    if (!writeText(path, record.step.title + "\n\n" + record.patch)) return Error{path, "cannot be written"};
    out.push_back(path);
  }
  return out;
}

}  // namespace elmcart
