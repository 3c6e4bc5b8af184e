// demo: the whole road on the shipped harbour office.
#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <iostream>
#include <tuple>

#include "base/text.h"
#include "cli/cli.h"
#include "cli/probed.h"
#include "probe/cost.h"
#include "report/figure.h"
#include "report/page/page.h"
#include "report/json.h"
#include "report/probe_text.h"
#include "report/rework_text.h"

namespace elmcart::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

// The same road in each language: what is raced and measured goes by the language's own names.
struct Demo {
  std::string_view language, folder;
  const char *ticket, *mast;
  const char* measured;  // what an access of it costs
};

const Demo& demoOf(const std::string& language) {
  static const std::vector<Demo> kDemos = {
      {"cpp", "harbour-office", "nextTicket", "SignalMast", "CargoScale"},
      {"java", "harbour-office-java", "Tickets", "SignalMast", "CargoScale"},
      {"python", "harbour-office-python", "next_ticket", "mast", "BerthBook"},
  };
  return *std::find_if(kDemos.begin(), kDemos.end(), [&](const Demo& demo) { return demo.language == language; });
}

// The faults of the office are made to happen, and an access is measured.
std::string probeOffice(const Options& options, const Interruption& interruption, const Demo& demo, const std::string& office, const std::string& folder) {
  TextStyle plain;
  std::string races, out;
  for (auto [name, scenario, what] : {std::tuple{"BerthBook", "creation", "berth book: more than one made"}, {demo.ticket, "change", "ticket number: a change lost"}, {demo.mast, "end", "signal mast: a lantern that ended is called"}}) {
    say(options, std::string("probe: a race for the ") + what);
    RaceOptions race;
    race.runs = 10;
    race.soundRuns = 20;
    race.scenario = scenario;
    race.jobs = jobsOf(options);
    Probed probed = probedOf(options, interruption, office, name);
    std::vector<RaceResult> results = raceAndKeep(options, probed, race);
    races += racesText(results, race, plain);
    for (const RaceResult& r : results) {
      if (r.race.findings.empty()) continue;
      out += fmt::format("The {} in {} of {} runs", what, r.asItIs.happened(), r.asItIs.runs.size());
      out += r.sound.runs.empty() ? ".\n" : fmt::format(", with {} in {} of {}.\n", r.race.move, r.sound.happened(), r.sound.runs.size());
    }
  }
  writeFile(folder + "/race.txt", races);
  say(options, "probe: the berth book is watched under the office's own tests");
  Probed book = probedOf(options, interruption, office, "BerthBook");
  if (auto watched = watch(office, book.config, *book.analysis, book.entity, {})) writeFile(folder + "/watch.txt", watchText(*watched, plain));
  else warn(watched.error().line());
  say(options, std::string("probe: what each access of ") + demo.measured + " costs");
  Probed scale = probedOf(options, interruption, office, demo.measured);
  if (auto cost = measureCost(office, scale.config, *scale.analysis, scale.entity, {})) writeFile(folder + "/cost.txt", costsText(*cost, plain));
  else warn(cost.error().line());
  return out;
}

}  // namespace

int runDemo(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()
      ("language", po::value<std::string>()->value_name("LANGUAGE")->default_value("cpp"), ("the office in " + wordsText(self, "language")).c_str())
      ("quick", po::bool_switch(), "plan the rework only: nothing is built and run");
  Options options = readOptions(context, self, own, "[FOLDER]", 0, 1);
  const Demo& demo = demoOf(wordOf(options, "language"));
  std::string folder = options.positional.empty() ? "elmcart-demo" : options.positional[0];
  std::error_code error;
  fs::path shipped = fs::read_symlink("/proc/self/exe", error).parent_path() / "../share/elmcart/demo";
  if (error || !fs::is_directory(shipped, error)) shipped = ELMCART_DEMO_FOLDER;
  fs::path source = shipped / demo.folder;
  if (!fs::is_directory(source, error)) throw Stop{kUnreadable, source.string() + ": the shipped demo is not there"};
  // Only a folder that a demo made before may be replaced.
  if (fs::exists(folder, error) && !fs::is_empty(folder, error)) {
    if (!fs::exists(fs::path(folder) / ".made-by-elmcart-demo", error)) throw Stop{kWrongUse, folder + ": is there already and was not made by the demo; name another folder"};
    fs::remove_all(folder, error);
  }
  fs::create_directories(folder, error);
  writeFile(folder + "/.made-by-elmcart-demo", "");
  std::string office = folder + "/" + std::string(demo.folder);
  fs::copy(source, office, fs::copy_options::recursive, error);
  if (error) throw Stop{kUnreadable, office + ": " + error.message()};

  TextStyle plain;
  int exitCode = kDone;
  say(options, "survey and assess: the harbour office");
  auto a = analysisOf(options, {office}, true, exitCode);
  writeFile(folder + "/survey.txt", surveyText(*a, true, plain));
  writeFile(folder + "/survey.json", jsonText(surveyJson(*a, true)));
  writeFile(folder + "/survey.csv", surveyCsv(*a, true));
  writeFile(folder + "/assess.txt", assessText(*a, true, plain));
  writeFile(folder + "/assess.json", jsonText(assessJson(*a, true)));
  say(options, "reach: the berth book");
  size_t book = entityOf(*a, "BerthBook");
  writeFile(folder + "/reach.txt", reachText(*a, book, plain));
  for (const char* format : {"svg", "png"}) {
    auto drawn = renderDot(reachDot(*a, book, false), format);
    if (!drawn) throw Stop{kInnerError, drawn.error().line()};
    writeFile(folder + "/reach." + format, *drawn);
  }
  writeFile(folder + "/reach.dot", reachDot(*a, book, false));
  writeFile(folder + "/reach.graphml", reachGraphML(*a, book));
  std::string explained = explainEntityText(*a, a->survey.entities[book], plain);
  writeFile(folder + "/explain.txt", explained);

  say(options, "propose: constructor injection for the berth book");
  ReworkResult proposal = carryOut(options, context.interruption, office, "BerthBook", false, true);
  writeFile(folder + "/propose.txt", proposalText(proposal, plain, true));
  ReworkResult result;
  bool quick = options.flag("quick");
  if (!quick) {
    say(options, "rework: step by step, under the office's own tests");
    result = carryOut(options, context.interruption, office, "BerthBook", true, true);
    if (result.interrupted) throw Stop{128 + context.interruption.asked->load(), "interrupted"};
    writeFile(folder + "/rework.txt", reworkSummaryText(result, plain));
    writeFile(folder + "/rework.json", jsonText(reworkJson(result)));
    auto patches = writePatches(result, folder + "/patches");
    if (!patches) throw Stop{kUnreadable, patches.error().line()};
    fs::copy(office, office + "-reworked", fs::copy_options::recursive, error);
    for (const WriteBackFile& file : result.files) writeFile(office + "-reworked/" + file.path, file.after);
  }
  std::string seen;
  if (!quick) {
    seen = probeOffice(options, context.interruption, demo, office, folder);
    a = analysisOf(options, {office}, true, exitCode);
    writeFile(folder + "/assess.txt", assessText(*a, true, plain));
    writeFile(folder + "/assess.json", jsonText(assessJson(*a, true)));
  }
  say(options, "report: one page");
  HtmlOptions html;
  html.title = "Shared state in the harbour office";
  html.reworks.push_back(quick ? &proposal : &result);
  writeFile(folder + "/report.html", htmlReport(*a, html));

  size_t real = 0;
  for (const Entity& e : a->survey.entities) real += !e.harmless;
  std::string out = fmt::format("The harbour office: {} of shared state, {}, the riskiest at {}.\n", counted(real, "piece", "pieces"), counted(a->assessment.findings.size(), "finding", "findings"),
                                a->assessment.findings.empty() ? 0 : a->assessment.findings.front().risk.value());
  bool fine = true;
  if (!quick) {
    size_t kept = 0;
    for (const StepRecord& s : result.steps) kept += s.kept;
    out += fmt::format("The berth book: {} of {} kept, places that fetch it {} before and {} after, {} and {} as before.\n", kept, counted(result.steps.size(), "step", "steps"), result.before["places that fetch it"],
                       result.after["places that fetch it"], counted(result.baseline.observation.tests.size(), "test", "tests"), counted(result.baseline.observation.witnesses.size(), "witness", "witnesses"));
    fine = result.finished && kept == result.steps.size();
    out += seen;
  }
  out += "In " + folder + "/:\n"
         "  report.html               everything on one page\n"
         "  survey.txt .json .csv     what shared state there is\n"
         "  assess.txt .json          what is risky about it, and why\n"
         "  reach.txt .svg .png …     who gets at the berth book\n"
         "  explain.txt propose.txt   what is known of it; the ways to mend it and their cost\n";
  if (!quick) out += "  race.txt watch.txt cost.txt  what was seen when it ran, and what an access costs\n  rework.txt .json patches/ each step with its outcome, and as a patch\n";
  if (!quick) out += fmt::format("  {:<25} the office afterwards\n", std::string(demo.folder) + "-reworked/");
  out += "Open " + folder + "/report.html first.\n";
  std::cout << out;
  return fine ? exitCode : kGateFailed;
}

}  // namespace elmcart::cli
