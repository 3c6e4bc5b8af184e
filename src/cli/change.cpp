// The commands that change or run things: propose, rework, confirm.
#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <functional>
#include <iostream>
#include <sstream>

#include "base/text.h"
#include "cli/cli.h"
#include "confirm/scratch.h"
#include "report/json.h"
#include "report/rework_text.h"
#include "rework/branch.h"
#include "rework/moves.h"
#include "rework/rework.h"
#include "source/ignore.h"
#include "source/revision.h"
#include "survey/survey.h"

namespace elmcart::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

// What a name stands for: a piece of shared state, a class or a function, by its id or qualified name.
struct Target {
  MoveTarget of = MoveTarget::State;
  std::string id;
};

Target targetNamed(const Analysis& a, const std::function<std::unique_ptr<Analysis>()>& judge, const std::string& name, const std::string& chosen) {
  auto made = [&](MoveTarget of) { return chosen.empty() || std::any_of(moves().begin(), moves().end(), [&](const Move& m) { return m.id == chosen && m.of == of; }); };
  if (made(MoveTarget::State)) {
    if (!entitiesNamed(a, name).empty()) return {MoveTarget::State, a.survey.entities[entityOf(a, name)].id};
    // A class that a finding is about may be no shared state itself: the state it has to do with is meant.
    auto judged = judge();
    for (const Finding& f : judged->assessment.findings)
      if (f.entity != SIZE_MAX && (f.subject == name || lastPart(f.subject) == name)) return {MoveTarget::State, judged->survey.entities[f.entity].id};
  }
  auto only = [&](const std::vector<std::string>& names, std::string_view what) {
    if (names.size() > 1) throw Stop{kWrongUse, name + " is the name of several " + std::string(what) + ": " + joinWith(names, ", ")};
    return names.front();
  };
  std::vector<std::string> classes = made(MoveTarget::Class) ? classesNamed(a, name) : std::vector<std::string>{};
  if (!classes.empty()) return {MoveTarget::Class, only(classes, "classes")};
  std::vector<std::string> functions = made(MoveTarget::Function) ? functionsNamed(a, name) : std::vector<std::string>{};
  if (!functions.empty()) return {MoveTarget::Function, only(functions, "functions")};
  if (!made(MoveTarget::State)) throw Stop{kWrongUse, name + ": no such " + (made(MoveTarget::Class) ? made(MoveTarget::Function) ? "class or function" : "class" : "function") + " in this tree"};
  return {MoveTarget::State, a.survey.entities[entityOf(a, name)].id};  // says what it may have been
}

// A move that may be made for a target, the advised one first.
struct Candidate {
  std::string move;
  Target target;
  std::string refusal;  // why it cannot be made; empty: it can
};

// Shared state and its class are one thing to a user: what is advised for the one may be a move for the other.
std::vector<Candidate> candidatesFor(const Analysis& a, const Target& target) {
  std::vector<Candidate> out;
  auto add = [&](const Move& move, const Target& on) {
    size_t at = targetOf(a, move, on.id);
    bool known = std::any_of(out.begin(), out.end(), [&](const Candidate& c) { return c.move == move.id; });
    if (!known && at != SIZE_MAX) out.push_back({std::string(move.id), on, refusalOf(move, a, at)});
  };
  std::vector<Target> targets{target};
  std::string advised;
  if (target.of == MoveTarget::State) {
    size_t entity = targetOf(a, *moveById("inject"), target.id);
    const Entity& e = a.survey.entities[entity];
    Advice advice = a.assessment.judgements[entity].advice;
    advised = adviceText(advice);
    if (advice == Advice::Keep || advice == Advice::ByHand) out.push_back({advised, target, std::string(adviceMeaning(advice))});
    TypeIndex holder = e.slot != kNone && a.program.variables[e.slot].owner != kNone ? a.program.variables[e.slot].owner : e.type;
    if (holder != kNone) targets.push_back({MoveTarget::Class, std::string(a.program.text(a.program.types[holder].qualified))});
  }
  for (bool first : {true, false})
    for (const Target& on : targets)
      for (const Move& move : moves())
        if (move.of == on.of && (move.id == advised) == first) add(move, on);
  return out;
}

ReworkResult carryOut(const Options& options, const Config& config, const std::string& path, const Candidate& candidate, bool confirm, bool retire) {
  ReworkOptions reworkOptions;
  reworkOptions.move = candidate.move;
  reworkOptions.of = candidate.target.of;
  reworkOptions.confirm = confirm;
  reworkOptions.jobs = jobsOf(options);
  reworkOptions.retire = retire;
  if (options.has("only")) reworkOptions.files = Globs(options.values["only"].as<std::vector<std::string>>());
  if (options.has("check")) reworkOptions.series = wordOf(options, "check") == "series";
  std::istringstream kinds(options.text("steps"));
  for (std::string kind; std::getline(kinds, kind, ',');) {
    std::span<const std::string_view> all = stepKindTexts();
    choiceOf("--steps", kind, wordsOf("rework", "steps"));
    reworkOptions.only.insert(static_cast<StepKind>(std::find(all.begin(), all.end(), kind) - all.begin()));
  }
  if (confirm) {
    // How far it is can only be told when it is known how far it goes.
    ReworkOptions plan = reworkOptions;
    plan.confirm = false;
    if (auto planned = rework(path, config, candidate.target.id, plan)) reworkOptions.expectedSteps = planned->steps.size();
    say(options, "planned: " + counted(reworkOptions.expectedSteps, "step", "steps") + " of " + candidate.move);
    reworkOptions.progress = [&](const std::string& line) { say(options, line); };
  }
  auto result = rework(path, config, candidate.target.id, reworkOptions);
  if (!result) throw Stop{config.stopAsked() ? 128 + config.stop->load() : static_cast<int>(kGateFailed), result.error().line()};
  return std::move(*result);
}

}  // namespace

ReworkResult carryOut(const Options& options, const Interruption& interruption, const std::string& path, const std::string& name, bool confirm, bool retire) {
  int exitCode = kDone;
  std::string named = options.text("move");
  Config config = configOf(options, path);
  config.stop = interruption.asked;
  *interruption.seen = true;
  std::vector<Candidate> candidates;
  {
    auto a = analysisOf(options, {path}, false, exitCode);
    auto judge = [&] { return analysisOf(options, {path}, true, exitCode); };
    Target target = targetNamed(*a, judge, name, named);
    if (!named.empty()) candidates.push_back({named, target, ""});
    else candidates = candidatesFor(target.of == MoveTarget::State ? *judge() : *a, target);
    // Of a class or function nothing is advised: what can be made comes first.
    if (target.of != MoveTarget::State) std::stable_partition(candidates.begin(), candidates.end(), [](const Candidate& c) { return c.refusal.empty(); });
  }
  if (confirm && config.build.empty() && config.test.empty())
    throw Stop{kWrongUse, "rework needs to know how the project is built and tested: give [build] and [test] commands in elmcart.toml (propose plans without them)"};
  // The advised move, or the one that was named. Without a step it is none: rework says so, and propose shows the next.
  std::string why;
  for (const Candidate& candidate : candidates) {
    if (candidate.refusal.empty()) {
      ReworkResult result = carryOut(options, config, path, candidate, confirm, retire);
      if (!named.empty() || !result.steps.empty()) {
        if (!why.empty()) say(options, why + "; shown instead: " + candidate.move);
        return result;
      }
      if (why.empty()) why = candidate.move + " is advised, and has no step here" + (result.byHand.empty() ? std::string() : ": " + result.byHand.front().reason);
    } else if (why.empty()) {
      why = candidate.move + (candidate.move == "keep" || candidate.move == "by-hand" ? " is advised: " : " is advised, and cannot be made: ") + candidate.refusal;
    }
    if (confirm) break;
  }
  std::vector<std::string> others;
  for (const Candidate& candidate : candidates)
    if (candidate.refusal.empty() && candidate.move != candidates.front().move) others.push_back(candidate.move);
  throw Stop{kGateFailed, name + ": " + why + (others.empty() ? "; no other move can be made" : "; --move names another: " + joinWith(others, ", "))};
}

namespace {

// The shared state that a test touches, by the last part of its name.
std::vector<std::string> touchedBy(const Analysis& a, const std::string& test) {
  size_t cut = test.find_last_of(".:/ ");
  std::string last = cut == std::string::npos ? test : test.substr(cut + 1);
  std::set<std::string> out;
  for (const Entity& e : a.survey.entities) {
    bool changes = std::any_of(e.state.begin(), e.state.end(), [](const StateField& f) { return f.changes; });
    if (e.harmless || !changes) continue;
    for (const Consumer& c : e.consumers) {
      if (c.in == kNone || !a.config.tests.match(a.program.path(c.place))) continue;
      // Its name's last word: of TEST(Mast, Raises) as of Mast.raises.
      std::string in = functionText(a.program, c.in);
      while (!in.empty() && !isWordByte(in.back())) in.pop_back();
      bool named = in.size() >= last.size() && in.compare(in.size() - last.size(), last.size(), last) == 0 && (in.size() == last.size() || !isWordByte(in[in.size() - last.size() - 1]));
      if (named) out.insert(e.name);
    }
  }
  return {out.begin(), out.end()};
}

void addMoveOption(po::options_description& own, const Command& self) {
  std::string ids = wordsText(self, "move") + "; left out: the first of them that can be made";
  own.add_options()("move", po::value<std::string>()->value_name("MOVE"), ids.c_str())
      ("only", po::value<std::vector<std::string>>()->value_name("GLOB"), "inject into uses in these files only, as 'src/**'; may be given several times")
      ("retire", po::bool_switch(), "inject goes on to where the program is put together: defaults, accessor and slot go where nobody needs them")
      ("steps", po::value<std::string>()->value_name("KIND[,KIND]"), "steps of these kinds only, as `seam` of inject: each class gets an access point for tests, and nobody passes anything on");
}

}  // namespace

int runPropose(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()
      ("format", po::value<std::string>()->value_name("FORMAT")->default_value("text"), wordsText(self, "format").c_str())
      ("diff", po::bool_switch(), "show each step's changes")
      ("patches", po::value<std::string>()->value_name("FOLDER"), "write the series of patches there, without running anything");
  addMoveOption(own, self);
  Options options = readOptions(context, self, own, "NAME [PATH]", 1, 2);
  if (options.has("move")) wordOf(options, "move");
  std::string format = wordOf(options, "format");
  ReworkResult result = carryOut(options, context.interruption, options.path(1), options.positional[0], false, options.flag("retire"));
  emit(options, format == "json" ? jsonText(reworkJson(result)) : proposalText(result, styleOf(options, options.has("out")), options.flag("diff")));
  if (options.has("patches")) {
    auto written = writePatches(result, options.text("patches"));
    if (!written) throw Stop{kUnreadable, written.error().line()};
    say(options, "wrote " + counted(written->size(), "patch", "patches") + " to " + options.text("patches") + "; nothing was built or run");
  }
  return kDone;
}

int runRework(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()
      ("check", po::value<std::string>()->value_name("WHEN")->default_value("each"), "each: build and test after every step; series: once after all, and by halves where anything differs")
      ("format", po::value<std::string>()->value_name("FORMAT")->default_value("text"), wordsText(self, "format").c_str())
      ("patches", po::value<std::string>()->value_name("FOLDER"), "write the series of patches there")
      ("write", po::bool_switch(), "change the tree itself when the steps are through")
      ("branch", po::value<std::string>()->value_name("NAME"), "one commit for each kept step, on a new branch; the work tree stays as it is")
      ("resume", po::bool_switch(), "finish writing that was interrupted: elmcart rework --resume [PATH]")
      ("undo", po::bool_switch(), "take the last writing back: elmcart rework --undo [PATH]");
  addMoveOption(own, self);
  Options options = readOptions(context, self, own, "NAME [PATH] | --resume [PATH] | --undo [PATH]", 0, 2);
  std::string format = wordOf(options, "format");
  if (options.has("move")) wordOf(options, "move");
  if (options.flag("resume") || options.flag("undo")) {
    if (options.flag("resume") && options.flag("undo")) throw Stop{kWrongUse, "either --resume or --undo"};
    std::error_code error;
    std::string root = fs::canonical(options.path(0), error).string();
    if (error) throw Stop{kUnreadable, options.path(0) + ": " + error.message()};
    auto done = options.flag("undo") ? undoJob(root) : resumeJob(root);
    if (!done) throw Stop{kGateFailed, done.error().line()};
    std::cout << counted(done->files.size(), "file", "files") << " " << done->what << "\n";
    return kDone;
  }
  if (options.positional.empty()) throw Stop{kWrongUse, "rework is used as: elmcart rework NAME [PATH]"};
  std::string path = options.path(1);
  std::error_code error;
  std::string root = fs::canonical(path, error).string();
  if (!error && options.flag("write") && hasInterruptedJob(root))
    throw Stop{kGateFailed, path + ": an earlier job was interrupted: finish it with `elmcart rework --resume` or take it back with `elmcart rework --undo`"};
  // What would be in the way at the end is told before anything is built.
  if (options.has("branch"))
    if (auto may = mayBranch(root, options.text("branch")); !may) throw Stop{kGateFailed, may.error().line()};
  ReworkResult result = carryOut(options, context.interruption, path, options.positional[0], true, options.flag("retire"));
  emit(options, format == "json" ? jsonText(reworkJson(result)) : reworkSummaryText(result, styleOf(options, options.has("out"))));
  if (options.has("patches")) {
    auto written = writePatches(result, options.text("patches"));
    if (!written) throw Stop{kUnreadable, written.error().line()};
    say(options, "wrote " + counted(written->size(), "patch", "patches") + " to " + options.text("patches"));
  }
  if (options.has("branch")) {
    auto commits = commitSteps(root, options.text("branch"), result);
    if (!commits) throw Stop{kGateFailed, commits.error().line()};
    say(options, *commits == 0 ? "no step was kept, so there is no branch" : counted(*commits, "commit", "commits") + " on the new branch " + options.text("branch") + "; nothing was checked out");
  }
  if (options.flag("write") && result.files.empty()) {
    say(options, "no step was kept, so nothing was written");
  } else if (options.flag("write")) {
    auto done = writeBack(root, result.files);
    if (!done) throw Stop{kGateFailed, done.error().line()};
    say(options, counted(done->files.size(), "file", "files") + " written; `elmcart rework --undo " + path + "` takes it back");
  }
  if (result.interrupted) throw Stop{128 + context.interruption.asked->load(), "interrupted; what was kept until then is told above" + std::string(options.has("patches") || options.flag("write") ? " and written" : "")};
  bool takenBack = false;
  for (const StepRecord& s : result.steps) takenBack |= !s.kept;
  return takenBack ? kGateFailed : kDone;
}

// What differs between the source files of two trees.
using SourceChange = std::map<std::string, std::pair<std::string, std::string>>;
SourceChange changeBetween(const std::string& a, const std::string& b, const Config& config) {
  SourceChange out;
  WalkOptions walk;
  walk.leaveOut = config.leaveOut;
  auto files = walkTree(b, walk, isWanted);
  if (!files) return out;
  for (const FoundFile& file : files->files) {
    auto after = readWhole(file.absolute);
    auto before = readWhole(a + "/" + file.path);
    if (after && (!before || *before != *after)) out[file.path] = {before ? *before : std::string(), *after};
  }
  return out;
}

int runConfirm(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()
      ("format", po::value<std::string>()->value_name("FORMAT")->default_value("text"), wordsText(self, "format").c_str())
      ("all", po::bool_switch(), "list the tests that did not change too")
      ("orders", po::value<size_t>()->value_name("N")->default_value(0), "run the tests in N other orders too, before and after")
      ("alone", po::bool_switch(), "run each test on its own too, by the command test.alone of elmcart.toml");
  Options options = readOptions(context, self, own, "A B", 2, 2);
  std::string format = wordOf(options, "format");
  std::error_code error;
  Config config = configOf(options, fs::is_directory(options.positional[0], error) ? options.positional[0] : ".");
  if (config.build.empty() && config.test.empty() && config.witnesses.empty())
    throw Stop{kWrongUse, "confirm needs to know how the project is built and tested: give [build] and [test] commands in elmcart.toml"};
  if (options.flag("alone") && config.testAlone.empty())
    throw Stop{kWrongUse, "--alone needs the command that runs one test: give [test] alone in elmcart.toml; it finds the test's name in ELMCART_TEST"};
  config.stop = context.interruption.asked;
  *context.interruption.seen = true;
  removeStrayScratch();
  auto scratch = Scratch::make();
  if (!scratch) throw Stop{kInnerError, scratch.error().line()};
  // A folder, or a revision of the repository around the working directory.
  auto copied = [&](const std::string& what, const std::string& name) {
    if (fs::is_directory(what, error)) {
      auto tree = scratch->copyTree(what, name, config.gitignore);
      if (!tree) throw Stop{kUnreadable, tree.error().line()};
      return *tree;
    }
    if (what.find('/') == 0 || what.rfind("./", 0) == 0) throw Stop{kUnreadable, what + ": no such folder"};
    std::string target = scratch->path() + "/" + name;
    auto files = extractRevision(".", what, target);
    if (!files) throw Stop{kUnreadable, what + ": no such folder, and no revision either: " + files.error().line()};
    return target;
  };
  std::string a = copied(options.positional[0], "a"), b = copied(options.positional[1], "b");
  say(options, fmt::format("building and testing {}, {}", options.positional[0], counted(static_cast<size_t>(config.baselineRuns), "time", "times")));
  Baseline before = learnBaseline(a, config);
  auto endIfInterrupted = [&] {
    if (config.stopAsked()) throw Stop{128 + config.stop->load(), "interrupted before both trees were tested"};
  };
  endIfInterrupted();
  if (!before.observation.built) throw Stop{kGateFailed, options.positional[0] + " does not build:\n" + before.observation.buildOutput};
  say(options, "building and testing " + options.positional[1]);
  Observation after = observe(b, config);
  for (const std::string& problem : after.problems) say(options, problem);
  if (!config.coverage.empty() && after.built && !after.coverageTold) say(options, "the test command wrote no coverage file that [test] coverage names: what it executes is not known");
  endIfInterrupted();
  Comparison comparison = compare(before, after, config.coverage.empty() ? SourceChange{} : changeBetween(a, b, config));
  OrderReport orders;
  size_t wanted = options.values["orders"].as<size_t>();
  bool alone = options.flag("alone");
  if (wanted > 0 || alone) {
    if (before.observation.tests.empty())
      throw Stop{kWrongUse, std::string(alone ? "--alone" : "--orders") + " needs results test by test: name the result files in [test] results of elmcart.toml"};
    Baseline second;
    second.observation = after;
    second.flakyTests = before.flakyTests;
    auto bothBy = [&](auto&& check) {
      check(a, before, orders.before);
      if (after.built) check(b, second, orders.after);
    };
    if (wanted > 0) {
      say(options, fmt::format("testing both in {}", counted(wanted, "other order", "other orders")));
      bothBy([&](const std::string& tree, const Baseline& seen, OrderCheck& out) { checkOrders(tree, config, seen, wanted, out); });
    }
    if (alone) {
      say(options, "running each test of both on its own");
      bothBy([&](const std::string& tree, const Baseline& seen, OrderCheck& out) { checkAlone(tree, config, seen, out); });
    }
    if (!orders.before.dependent.empty() || !orders.after.dependent.empty()) {
      auto analysis = analyse(a, config, jobsOf(options), false);
      for (const OrderCheck* check : {&orders.before, &orders.after})
        for (auto& [name, how] : check->dependent)
          if (analysis) orders.shares[name] = touchedBy(**analysis, name);
    }
  }
  const OrderReport* told = wanted > 0 || alone ? &orders : nullptr;
  emit(options, format == "json" ? jsonText(confirmJson(before, after, comparison, told)) : confirmText(before, after, comparison, told, options.flag("all"), styleOf(options, options.has("out"))));
  return comparison.same() ? kDone : kGateFailed;
}

}  // namespace elmcart::cli
