// The command line: options, exit codes, where text goes. Nothing is computed here.
#pragma once

#include <atomic>
#include <boost/program_options.hpp>
#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "assess/analysis.h"
#include "report/text.h"
#include "rework/rework.h"

namespace elmcart::cli {

enum ExitCode { kDone = 0, kGateFailed = 1, kWrongUse = 2, kUnreadable = 3, kInnerError = 4 };

// Thrown by commands to end with a message and a code; caught in main only.
struct Stop {
  int code;
  std::string message;
};

// SIGINT, SIGTERM and SIGHUP. A command that runs the user's build or tests ends by itself when it
// sees the request, so that what it kept is written; any other command, and a second
// signal, end the process at once. No scratch folder stays behind either way.
struct Interruption {
  std::shared_ptr<std::atomic<int>> asked = std::make_shared<std::atomic<int>>(0);  // the signal
  std::shared_ptr<std::atomic<bool>> seen = std::make_shared<std::atomic<bool>>(false);  // does the command look at it?
};

// What a command takes: for manual pages and completions.
struct Described {
  std::string operands;  // "NAME [PATH]"
  boost::program_options::options_description own, common;
};

struct Context {
  std::vector<std::string> arguments;  // behind the command's name
  Interruption interruption;
  Described* described = nullptr;      // instead of running, the command puts there what it takes, and throws Stop
};

struct Command {
  std::string_view name;
  std::string_view answers;                   // one line for the list
  std::vector<std::string_view> examples;     // two real ones
  int (*run)(const Context& context, const Command& self);
};

const std::vector<Command>& commands();
// The words that an option of a command takes, or its first operand ("" as the option); empty: any text.
const std::vector<std::string>& wordsOf(std::string_view command, std::string_view option);
// The same as "text, json or csv".
std::string wordsText(const Command& command, std::string_view option);

int runInit(const Context&, const Command&);
int runSurvey(const Context&, const Command&);
int runAssess(const Context&, const Command&);
int runReach(const Context&, const Command&);
int runExplain(const Context&, const Command&);
int runProbe(const Context&, const Command&);
int runPropose(const Context&, const Command&);
int runRework(const Context&, const Command&);
int runConfirm(const Context&, const Command&);
int runReport(const Context&, const Command&);
int runDemo(const Context&, const Command&);

// ----- what the commands share

struct Options {
  const Command* command = nullptr;
  std::vector<std::string> positional;
  boost::program_options::variables_map values;

  bool has(const char* name) const { return values.count(name) > 0; }
  bool flag(const char* name) const { return values.count(name) && values[name].as<bool>(); }
  // What stands at that place among the positional arguments; the current folder where nothing does.
  std::string path(size_t at) const { return positional.size() > at ? positional[at] : "."; }
  std::string text(const char* name) const { return values.count(name) ? values[name].as<std::string>() : std::string(); }
};

// Reads a command's options; `own` describes those beyond the common ones.
// Prints the help and throws Stop when --help is among them.
Options readOptions(const Context& context, const Command& self, const boost::program_options::options_description& own,
                    std::string_view operands, size_t leastOperands, size_t mostOperands);

unsigned jobsOf(const Options& options);
Config configOf(const Options& options, const std::string& path);
TextStyle styleOf(const Options& options, bool toFile);
// Loads and judges the paths (several: below the folder that holds them all); reports files that could not be used.
std::unique_ptr<Analysis> analysisOf(const Options& options, const std::vector<std::string>& paths, bool assess, int& exitCode);
// What a command says of a tree: kept in the cache, so that a second run over
// the same files says it again at once.
struct Answer {
  std::string text;                   // the result
  std::vector<std::string> messages;  // for stderr, silent with --quiet
  int exitCode = kDone;
};
// `question`: the command and those of its options that the answer depends on.
// `since`: a git revision whose findings are left out; empty: none are.
int answer(const Options& options, const TextStyle& style, const std::vector<std::string>& paths, bool assess, const std::vector<std::string>& question, const std::string& since, const std::function<Answer(Analysis&)>& make);
// The one entity that `name` means, or Stop with the candidates or the nearest names.
size_t entityOf(const Analysis& analysis, const std::string& name);
// One of the allowed words, or Stop with the nearest.
// What an option says, which must be one of its words.
std::string wordOf(const Options& options, const char* option);
std::string choiceOf(const std::string& what, const std::string& value, const std::vector<std::string>& allowed);
// Plans a move for what a name stands for, or carries it out under the project's tests.
ReworkResult carryOut(const Options& options, const Interruption& interruption, const std::string& path, const std::string& name, bool confirm, bool retire);
// To --out or to stdout.
void emit(const Options& options, const std::string& text);
void writeFile(const std::string& path, const std::string& text);
// Messages and progress, to stderr; silent with --quiet.
void say(const Options& options, const std::string& line);
void warn(const std::string& line);

}  // namespace elmcart::cli
