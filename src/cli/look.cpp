// The commands that only look: survey, assess, reach, explain, report.
#include <fmt/format.h>

#include <filesystem>
#include <iostream>

#include "base/text.h"
#include "cli/cli.h"
#include "report/exchange.h"
#include "report/figure.h"
#include "report/page/page.h"
#include "report/json.h"
#include "source/ignore.h"

namespace elmcart::cli {
namespace po = boost::program_options;
namespace {

constexpr const char* kNoTests = "as if there were no tests: the files that `tests` of the configuration names are left out";

// A terminal shows the most telling rows unless all is asked for; files and pipes get everything.
TextStyle limited(TextStyle style, const Options& options, size_t onTerminal) {
  if (options.has("limit")) style.limit = options.values["limit"].as<size_t>();
  else if (style.terminal && !options.flag("all")) style.limit = onTerminal;
  return style;
}

// An id, the part of an id behind its family, or a family; empty: all.
std::string checkOrFamily(const std::string& word) {
  if (word.empty()) return "";
  if (const CheckInfo* info = checkById(word)) return std::string(info->id);
  std::vector<std::string> known;
  for (const Check& check : checks()) {
    known.emplace_back(check.info.id);
    std::string family(check.info.id.substr(0, check.info.id.find('.')));
    if (family == word) return word;
    known.push_back(family);
    known.emplace_back(check.info.id.substr(family.size() + 1));
  }
  std::vector<std::string> nearest = nearestNames(word, known);
  throw Stop{kWrongUse, "no check and no family is called '" + word + "'" + (nearest.empty() ? "" : "; did you mean " + nearest.front() + "?")};
}

bool fits(const Analysis& a, const Finding& f, const std::string& check, const std::string& path) {
  bool ofCheck = check.empty() || f.check == check || (f.check.size() > check.size() && f.check.compare(0, check.size(), check) == 0 && f.check[check.size()] == '.');
  return ofCheck && (path.empty() || Globs({path, path + "/**"}).match(a.program.path(f.place)));
}

}  // namespace

int runSurvey(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()
      ("format", po::value<std::string>()->value_name("FORMAT")->default_value("text"), wordsText(self, "format").c_str())
      ("all", po::bool_switch(), "everything: also what can do no harm, with the reason why")
      ("no-tests", po::bool_switch(), kNoTests)
      ("limit", po::value<size_t>()->value_name("N"), "list the N pieces that most places reach (on a terminal: 30)");
  Options options = readOptions(context, self, own, "[PATH…]", 0, 1000);
  std::string format = wordOf(options, "format");
  bool all = options.flag("all");
  TextStyle style = limited(styleOf(options, options.has("out")), options, 30);
  return answer(options, style, options.positional, false, {"survey", format, all ? "all" : ""}, "", [&](const Analysis& a) {
    Answer out;
    out.text = format == "json" ? jsonText(surveyJson(a, all)) : format == "csv" ? surveyCsv(a, all) : surveyText(a, all, style);
    return out;
  });
}

int runAssess(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()
      ("format", po::value<std::string>()->value_name("FORMAT")->default_value("text"), wordsText(self, "format").c_str())
      ("because", po::value<std::string>()->value_name("REASON"), "with --format ledger: why today's findings are accepted")
      ("since", po::value<std::string>()->value_name("REVISION"), "only findings that the git revision does not have yet")
      ("gate", po::value<int>()->value_name("RISK"), "end with exit code 1 when a finding has that risk or more")
      ("check", po::value<std::string>()->value_name("CHECK"), "only findings of this check, or of this family: single, init, thread, lifetime, coupling")
      ("path", po::value<std::string>()->value_name("GLOB"), "only findings in files that match")
      ("limit", po::value<size_t>()->value_name("N"), "the N pieces of code to fix first, a line each (on a terminal: 10)")
      ("all", po::bool_switch(), "all findings with their evidence, on a terminal too")
      ("no-tests", po::bool_switch(), kNoTests)
      ("accepted", po::bool_switch(), "also the findings that were accepted");
  Options options = readOptions(context, self, own, "[PATH…]", 0, 1000);
  std::string format = wordOf(options, "format");
  if (format == "ledger" && options.text("because").empty()) throw Stop{kWrongUse, "--format ledger needs --because REASON: an acceptance without a reason is none"};
  bool accepted = options.flag("accepted");
  std::string check = checkOrFamily(options.text("check")), path = options.text("path");
  int gate = options.has("gate") ? options.values["gate"].as<int>() : -1;
  // Who asks for one check or place wants to read its evidence.
  TextStyle style = limited(styleOf(options, options.has("out")), options, check.empty() && path.empty() ? 10 : 0);
  return answer(options, style, options.positional, true, {"assess", format, accepted ? "accepted" : "", std::to_string(gate), options.text("because"), check, path}, options.text("since"), [&](Analysis& a) {
    std::erase_if(a.assessment.findings, [&](const Finding& f) { return !fits(a, f, check, path); });
    Answer out;
    if (format == "json") out.text = jsonText(assessJson(a, accepted));
    else if (format == "sarif") out.text = jsonText(assessSarif(a, ELMCART_VERSION));
    else if (format == "junit") out.text = assessJunit(a, std::max(gate, 0));
    else if (format == "markdown") out.text = assessMarkdown(a, accepted);
    else if (format == "csv") out.text = assessCsv(a, accepted);
    else if (format == "ledger") out.text = assessLedger(a, options.text("because"));
    else out.text = assessText(a, accepted, style);
    size_t over = 0;
    for (const Finding& f : a.assessment.findings) over += gate >= 0 && f.acceptedBecause.empty() && f.risk.value() >= gate;
    if (over > 0) {
      out.messages.push_back(fmt::format("gate: {} of risk {} or more", over == 1 ? "1 finding" : std::to_string(over) + " findings", gate));
      out.exitCode = kGateFailed;
    }
    return out;
  });
}

namespace {

int waysTo(const Options& options, const Analysis& a, size_t entity, const std::string& format, int exitCode) {
  if (format != "text" && format != "json") throw Stop{kWrongUse, "--from and --to are told as text or json"};
  ReachWays ways = reachWays(a, entity, options.text("from"), options.text("to"));
  if (!ways.unknown.empty()) {
    std::vector<std::string> names;
    for (const TypeDecl& type : a.program.types) names.emplace_back(lastPart(a.program.text(type.qualified)));
    for (FunctionIndex f = 0; f < a.program.functions.size(); ++f) names.push_back(functionText(a.program, f));
    std::vector<std::string> nearest = nearestNames(ways.unknown.front(), names);
    throw Stop{kWrongUse, "no function, class or file is called '" + ways.unknown.front() + "'" + (nearest.empty() ? "" : "; did you mean " + joinWith(nearest, " or ") + "?")};
  }
  std::string of = options.has("from") ? "from " + options.text("from") : "from what nothing calls";
  if (options.has("to")) of += " to " + options.text("to");
  emit(options, format == "json" ? jsonText(reachWaysJson(a, entity, ways)) : reachWaysText(a, entity, ways, of, limited(styleOf(options, options.has("out")), options, 6)));
  return ways.ways.empty() ? kGateFailed : exitCode;
}

}  // namespace

int runReach(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()
      ("format", po::value<std::string>()->value_name("FORMAT"), (wordsText(self, "format") + "; told by the ending of --out when not given").c_str())
      ("tests", po::bool_switch(), "draw the tests too")
      ("from", po::value<std::string>()->value_name("NAME"), "by which calls code of this function, class or file gets at it (text and json)")
      ("to", po::value<std::string>()->value_name("NAME"), "only ways that end at uses in this function, class or file; alone: from what nothing calls")
      ("limit", po::value<size_t>()->value_name("N"), "the N classes or files with the most sites (on a terminal: 12)")
      ("all", po::bool_switch(), "everything, on a terminal too");
  Options options = readOptions(context, self, own, "NAME [PATH]", 1, 2);
  std::string format = options.text("format");
  if (format.empty()) {
    std::string ending = std::filesystem::path(options.text("out")).extension().string();
    format = ending == ".svg" || ending == ".png" || ending == ".dot" || ending == ".graphml" || ending == ".json" ? ending.substr(1) : "text";
  }
  choiceOf("--format", format, wordsOf(self.name, "format"));
  int exitCode = kDone;
  auto a = analysisOf(options, {options.path(1)}, false, exitCode);
  size_t entity = entityOf(*a, options.positional[0]);
  if (options.has("from") || options.has("to")) return waysTo(options, *a, entity, format, exitCode);
  if (format == "text") emit(options, reachText(*a, entity, limited(styleOf(options, options.has("out")), options, 12)));
  else if (format == "json") emit(options, jsonText(reachJson(*a, entity)));
  else if (format == "graphml") emit(options, reachGraphML(*a, entity));
  else {
    std::string dot = reachDot(*a, entity, options.flag("tests"));
    if (format == "dot") {
      emit(options, dot);
    } else {
      auto drawn = renderDot(dot, format);
      if (!drawn) throw Stop{kInnerError, drawn.error().line()};
      emit(options, *drawn);
    }
  }
  return exitCode;
}

namespace {

// What a name that some command printed stands for: a finding's id, an entity, a class that a
// container makes one of, or what a finding is about.
std::string explained(const Analysis& a, const std::string& name, const TextStyle& style) {
  for (const Finding& f : a.assessment.findings)
    if (f.id == name || f.fingerprint == name) return explainFindingText(a, f, style);
  if (!entitiesNamed(a, name).empty()) return explainEntityText(a, a.survey.entities[entityOf(a, name)], style);
  for (const Entity& e : a.survey.managed)
    if (e.id == name || e.name == name || e.shown == name) return explainEntityText(a, e, style);
  std::string out;
  for (const Finding& f : a.assessment.findings)
    if (f.subject == name || lastPart(f.subject) == name) out += (out.empty() ? "" : "\n") + explainFindingText(a, f, style);
  if (!out.empty()) return out;
  // Only a check's id has a family in front.
  for (const Check& check : checks()) {
    std::string family(check.info.id.substr(0, check.info.id.find('.') + 1));
    if (name.compare(0, family.size(), family) == 0 && name.find(':') == std::string::npos) (void)checkOrFamily(name);
  }
  return explainEntityText(a, a.survey.entities[entityOf(a, name)], style);  // ends with the nearest names
}

}  // namespace

int runExplain(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()("language", po::value<std::string>()->value_name("LANGUAGE"), "of a check's samples (see: explain languages)");
  Options options = readOptions(context, self, own, "CHECK, LANGUAGE, languages or NAME [PATH]", 1, 2);
  TextStyle style = styleOf(options, options.has("out"));
  std::string wanted = lowerCase(options.text("language"));
  if (!wanted.empty()) {
    std::vector<std::string> known;
    for (const Language& language : languages()) known.emplace_back(language.id);
    // By its name the first of that name: a language may have two grammars.
    auto named = std::find_if(languages().begin(), languages().end(), [&](const Language& language) { return wanted == lowerCase(language.name); });
    if (named != languages().end()) wanted = named->id;
    choiceOf("--language", wanted, known);
  }
  if (const CheckInfo* info = checkById(options.positional[0])) {
    emit(options, explainCheckText(*info, wanted, style));
    return kDone;
  }
  if (!wanted.empty()) throw Stop{kWrongUse, "--language is for the samples of a check, and no check is called '" + options.positional[0] + "'"};
  std::string word = lowerCase(options.positional[0]);
  if (word == "languages") {
    emit(options, languagesText(style));
    return kDone;
  }
  // A language, unless a path follows in which the name is to be looked for.
  for (const Language& language : languages())
    if (options.positional.size() == 1 && (word == language.id || word == lowerCase(language.name))) {
      emit(options, explainLanguageText(language, style));
      return kDone;
    }
  int exitCode = kDone;
  auto a = analysisOf(options, {options.path(1)}, true, exitCode);
  emit(options, explained(*a, options.positional[0], style));
  return exitCode;
}

int runReport(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()("title", po::value<std::string>()->value_name("TEXT"), "the page's title")("no-tests", po::bool_switch(), kNoTests);
  Options options = readOptions(context, self, own, "[PATH…]", 0, 1000);
  int exitCode = kDone;
  auto a = analysisOf(options, options.positional, true, exitCode);
  HtmlOptions html;
  std::string name = std::filesystem::path(a->program.root).filename().string();
  html.title = options.has("title") ? options.text("title") : "Shared state in " + name;
  std::string page = htmlReport(*a, html);
  std::string path = options.has("out") ? options.text("out") : "elmcart-report.html";
  writeFile(path, page);
  say(options, "wrote " + path);
  return exitCode;
}

}  // namespace elmcart::cli
