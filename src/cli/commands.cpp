// The commands, and the words that their options take.
#include <algorithm>

#include "base/text.h"
#include "cli/cli.h"
#include "rework/moves.h"

namespace elmcart::cli {

const std::vector<Command>& commands() {
  static const std::vector<Command> kCommands = {
      {"init", "how is this project built and tested?", {"elmcart init", "elmcart init --try office"}, runInit},
      {"survey", "what shared state is there?", {"elmcart survey src", "elmcart survey --format json --out survey.json ."}, runSurvey},
      {"assess", "which of it is risky, and why?", {"elmcart assess .", "elmcart assess --gate 50 src"}, runAssess},
      {"reach", "who gets at it, and by which way?", {"elmcart reach BerthBook", "elmcart reach --from HarbourMaster --to Quay BerthBook"}, runReach},
      {"explain", "what does a check mean, what does a language promise, why does a piece of state score so?", {"elmcart explain thread.unguarded-creation", "elmcart explain BerthBook src"}, runExplain},
      {"probe", "does it really happen when the code runs?", {"elmcart probe race BerthBook", "elmcart probe watch BerthBook"}, runProbe},
      {"propose", "what would mend it, at what cost, which way is best?", {"elmcart propose BerthBook", "elmcart propose --diff --patches steps BerthBook src"}, runPropose},
      {"rework", "do it, step by step, under the tests", {"elmcart rework --patches steps BerthBook", "elmcart rework --move synchronize --branch guarded BerthBook"}, runRework},
      {"confirm", "do two trees behave alike?", {"elmcart confirm office office-reworked", "elmcart confirm --orders 3 HEAD~2 HEAD"}, runConfirm},
      {"report", "everything for reading and showing, on one page", {"elmcart report", "elmcart report --out shared-state.html src"}, runReport},
      {"demo", "the whole road on the shipped harbour office", {"elmcart demo", "elmcart demo --language java --quick /tmp/office-demo"}, runDemo},
  };
  return kCommands;
}

namespace {

struct Words {
  std::string command, option;  // command "": a common option
  std::vector<std::string> words;
};

std::vector<std::string> moveIds() {
  std::vector<std::string> out;
  for (const Move& move : moves())
    if (std::find(out.begin(), out.end(), move.id) == out.end()) out.emplace_back(move.id);
  return out;
}

std::vector<std::string> checkIds() {
  std::vector<std::string> out;
  for (const Check& check : checks()) {
    std::string family(check.info.id.substr(0, check.info.id.find('.')));
    if (std::find(out.begin(), out.end(), family) == out.end()) out.push_back(family);
    out.emplace_back(check.info.id);
  }
  return out;
}

std::vector<std::string> languageIds() {
  std::vector<std::string> out;
  for (const Language& language : languages()) out.emplace_back(language.id);
  return out;
}

}  // namespace

const std::vector<std::string>& wordsOf(std::string_view command, std::string_view option) {
  static const std::vector<std::string> kPlain = {"text", "json"}, kNone;
  static const std::vector<std::string> kKinds(stepKindTexts().begin(), stepKindTexts().end());
  static const std::vector<Words> kWords = {
      {"", "color", {"auto", "always", "never"}},
      {"survey", "format", {"text", "json", "csv"}},
      {"assess", "format", {"text", "json", "sarif", "junit", "markdown", "csv", "ledger"}},
      {"assess", "check", checkIds()},
      {"reach", "format", {"text", "json", "svg", "png", "dot", "graphml"}},
      {"explain", "", checkIds()},
      {"explain", "language", languageIds()},
      {"probe", "", {"watch", "race", "cost"}},
      {"probe", "format", kPlain},
      {"probe", "scenario", {"creation", "change", "end", "order"}},
      {"propose", "format", kPlain},
      {"propose", "move", moveIds()},
      {"propose", "steps", kKinds},
      {"rework", "format", kPlain},
      {"rework", "check", {"each", "series"}},
      {"rework", "move", moveIds()},
      {"rework", "steps", kKinds},
      {"confirm", "format", kPlain},
      {"demo", "language", {"cpp", "java", "python"}},
  };
  for (const Words& words : kWords)
    if (words.option == option && (words.command.empty() || words.command == command)) return words.words;
  return kNone;
}

std::string wordsText(const Command& command, std::string_view option) {
  const std::vector<std::string>& words = wordsOf(command.name, option);
  return joinWith({words.begin(), words.end() - 1}, ", ") + " or " + words.back();
}

}  // namespace elmcart::cli
