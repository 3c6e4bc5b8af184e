#include <fmt/format.h>
#include <sys/ioctl.h>
#include <unistd.h>

#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <iostream>
#include <nlohmann/json.hpp>
#include <set>

#include "base/text.h"
#include "cli/cli.h"
#include "store/cache.h"
#include "store/fingerprint.h"

namespace elmcart::cli {
namespace po = boost::program_options;

Options readOptions(const Context& context, const Command& self, const po::options_description& own, std::string_view operands, size_t least, size_t most) {
  Options out;
  po::options_description common("common options");
  common.add_options()
      ("help,h", po::bool_switch(), "show this and end")
      ("config", po::value<std::string>()->value_name("FILE"), "configuration instead of the elmcart.toml found upward")
      ("jobs,j", po::value<int>()->value_name("N")->default_value(0, "all cores"), "threads to work with")
      ("cache", po::value<std::string>()->value_name("FOLDER"), "keep what was read there, for the next run; else in the user's cache folder")
      ("no-cache", po::bool_switch(), "read all files, and keep nothing")
      ("out,o", po::value<std::string>()->value_name("PATH"), "write results there instead of to stdout")
      ("color", po::value<std::string>()->value_name("WHEN")->default_value("auto"), wordsText(self, "color").c_str())
      ("quiet,q", po::bool_switch(), "no messages but errors")
      ("verbose,v", po::bool_switch(), "numbers on what was read and how long it took");
  out.command = &self;
  if (context.described) {
    context.described->operands = operands;
    context.described->own.add(own);
    context.described->common.add(common);
    throw Stop{kDone, ""};
  }
  po::options_description all;
  all.add(own).add(common).add_options()("operand", po::value<std::vector<std::string>>(), "");
  po::positional_options_description positions;
  positions.add("operand", -1);
  try {
    po::store(po::command_line_parser(context.arguments).options(all).positional(positions).style(po::command_line_style::unix_style & ~po::command_line_style::allow_guessing).run(), out.values);
    po::notify(out.values);
  } catch (const po::unknown_option& error) {
    std::vector<std::string> names;
    for (const auto& option : all.options()) names.push_back("--" + option->long_name());
    std::vector<std::string> nearest = nearestNames(error.get_option_name(), names);
    throw Stop{kWrongUse, fmt::format("{} has no option '{}'{}", self.name, error.get_option_name(), nearest.empty() ? "" : "; did you mean " + joinWith(nearest, " or ") + "?")};
  } catch (const po::error& error) {
    throw Stop{kWrongUse, fmt::format("{}: {}", self.name, error.what())};
  }
  if (out.flag("help")) {
    std::cout << fmt::format("elmcart {} {}\n  {}\n\n", self.name, operands, self.answers);
    if (!own.options().empty()) std::cout << own << "\n";
    std::cout << common << "\nexamples:\n";
    for (std::string_view example : self.examples) std::cout << "  " << example << "\n";
    throw Stop{kDone, ""};
  }
  if (out.has("operand")) out.positional = out.values["operand"].as<std::vector<std::string>>();
  if (out.positional.size() < least || out.positional.size() > most)
    throw Stop{kWrongUse, fmt::format("{} is used as: elmcart {} {}", self.name, self.name, operands)};
  wordOf(out, "color");
  if (out.values["jobs"].as<int>() < 0) throw Stop{kWrongUse, "--jobs must be 1 or more"};
  return out;
}

unsigned jobsOf(const Options& options) { return static_cast<unsigned>(options.values["jobs"].as<int>()); }

Config configOf(const Options& options, const std::string& path) {
  std::error_code error;
  std::string folder = std::filesystem::is_directory(path, error) ? path : std::filesystem::path(path).parent_path().string();
  auto config = options.has("config") ? readConfig(options.text("config")) : findConfig(folder.empty() ? "." : folder);
  if (!config) throw Stop{kWrongUse, config.error().line()};
  return *config;
}

TextStyle styleOf(const Options& options, bool toFile) {
  TextStyle style;
  std::string when = options.text("color");
  bool terminal = !toFile && ::isatty(1);
  style.colour = when == "always" || (when == "auto" && terminal && !std::getenv("NO_COLOR"));
  // A terminal has a width, and so has who sets COLUMNS; in a file or a pipe nothing is cut.
  int columns = 0;
  if (const char* told = std::getenv("COLUMNS")) columns = std::atoi(told);
  if (winsize window{}; columns == 0 && terminal && ::ioctl(1, TIOCGWINSZ, &window) == 0) columns = window.ws_col;
  style.terminal = terminal;
  style.cut = terminal || columns > 0;
  if (columns >= 60 && columns <= 400) style.width = columns;
  return style;
}

namespace {

struct Input {
  std::string path;
  Config config;
};

// Several paths are one: the folder that holds them all, of which only they are read.
Input inputOf(const Options& options, const std::vector<std::string>& paths) {
  namespace fs = std::filesystem;
  std::string path = paths.empty() ? "." : paths.front();
  std::vector<std::string> only;
  if (paths.size() > 1) {
    std::error_code error;
    std::vector<fs::path> absolute;
    for (const std::string& each : paths) {
      absolute.push_back(fs::canonical(each, error));
      if (error) throw Stop{kUnreadable, each + ": no such file or folder"};
    }
    fs::path common = fs::is_directory(absolute.front(), error) ? absolute.front() : absolute.front().parent_path();
    for (const fs::path& each : absolute)
      while (common != common.root_path() && std::mismatch(common.begin(), common.end(), each.begin(), each.end()).first != common.end()) common = common.parent_path();
    for (const fs::path& each : absolute) only.push_back(each == common ? "" : each.lexically_relative(common).string());
    path = common.string();
  }
  Config config = configOf(options, path);
  config.only = only;
  if (options.flag("no-tests")) {
    std::vector<std::string> all = config.leaveOut.patterns();
    all.insert(all.end(), config.tests.patterns().begin(), config.tests.patterns().end());
    config.leaveOut = Globs(std::move(all));
  }
  return {path, config};
}

SourceTree sourcesOf(const Options& options, const Input& input) {
  auto tree = readTree(input.path, loadOptionsOf(input.config, jobsOf(options)));
  if (!tree) throw Stop{kUnreadable, tree.error().line()};
  if (tree->files.empty() && tree->ignored > 0)
    warn(input.path + ": no source file was read: .gitignore files leave out " + counted(tree->ignored, "file or folder", "files and folders") + " here (`gitignore = false` under [read] in elmcart.toml reads them)");
  return std::move(*tree);
}

// Where the cache is kept unless --cache says otherwise: the XDG Base Directory
// Specification's folder for caches. Empty: nowhere.
std::string cacheFolder(const Options& options) {
  if (options.flag("no-cache")) return "";
  if (options.has("cache")) return options.text("cache");
  if (const char* folder = std::getenv("XDG_CACHE_HOME"); folder && folder[0] == '/') return std::string(folder) + "/elmcart";
  if (const char* home = std::getenv("HOME"); home && home[0] == '/') return std::string(home) + "/.cache/elmcart";
  return "";
}

std::unique_ptr<Cache> cacheOf(const Options& options) {
  std::string folder = cacheFolder(options), why;
  if (folder.empty()) return nullptr;
  auto cache = Cache::open(folder, why);
  // Only a cache that was asked for is worth a word when there can be none.
  if (!cache && options.has("cache")) warn("no cache: " + why);
  if (cache && !cache->rebuilt().empty() && (options.has("cache") || options.flag("verbose"))) warn("the cache is begun anew: " + cache->rebuilt());
  return cache;
}

std::string fileText(const std::string& path) {
  auto text = path.empty() ? Result<std::string>(std::string()) : readWhole(path);
  return text ? *text : std::string();
}

CacheKey keyOf(const SourceTree& tree, const Input& input, const TextStyle& style, const std::vector<std::string>& question) {
  KeyMaker key;
  key.add(buildFingerprint()).add("answer").add(tree.root).add(static_cast<uint64_t>(style.width)).add(static_cast<uint64_t>(style.cut)).add(static_cast<uint64_t>(style.colour)).add(static_cast<uint64_t>(style.limit));
  for (const std::string& word : question) key.add(word);
  key.add(fileText(input.config.path));
  if (!input.config.ledger.empty()) key.add(fileText((std::filesystem::path(input.config.path).parent_path() / input.config.ledger).string()));
  key.add(fileText(evidencePath(input.config, tree.root)));
  for (const std::string& each : input.config.only) key.add(each);
  key.add(tree.files.size());
  for (size_t i = 0; i < tree.files.size(); ++i) key.add(tree.files[i].path).add(tree.texts[i]);
  for (const Error& problem : tree.problems) key.add(problem.line());
  return key.key();
}

// The work itself, and what is to be said of it on the way.
std::unique_ptr<Analysis> worked(const Options& options, const Input& input, SourceTree tree, bool assess, Cache* cache) {
  auto result = analyse(std::move(tree), input.config, jobsOf(options), assess, cache);
  for (const Error& problem : result->problems) warn(problem.line());
  if (options.flag("verbose")) std::cerr << surveyNumbers(*result);
  return result;
}

// Takes out the findings that the revision has as well.
void leaveOutKnown(Analysis& now, const Options& options, const Input& input, const std::string& root, const std::string& since, Cache* cache) {
  auto then = readTreeAt(root, since, loadOptionsOf(input.config, jobsOf(options)));
  if (!then) throw Stop{kWrongUse, "--since: " + then.error().line()};
  auto before = analyse(std::move(*then), input.config, jobsOf(options), true, cache);
  std::set<std::string> known;
  for (const Finding& f : before->assessment.findings) known.insert(f.fingerprint);
  size_t all = now.assessment.findings.size();
  std::erase_if(now.assessment.findings, [&](const Finding& f) { return known.count(f.fingerprint) > 0; });
  say(options, fmt::format("since {}: {} of {} findings are new; {} that it had are gone", since, now.assessment.findings.size(), all, before->assessment.findings.size() - (all - now.assessment.findings.size())));
}

}  // namespace

std::unique_ptr<Analysis> analysisOf(const Options& options, const std::vector<std::string>& paths, bool assess, int& exitCode) {
  Input input = inputOf(options, paths);
  std::unique_ptr<Cache> cache = cacheOf(options);
  auto result = worked(options, input, sourcesOf(options, input), assess, cache.get());
  if (!result->problems.empty()) exitCode = kUnreadable;
  return result;
}

int answer(const Options& options, const TextStyle& style, const std::vector<std::string>& paths, bool assess, const std::vector<std::string>& question, const std::string& since, const std::function<Answer(Analysis&)>& make) {
  Input input = inputOf(options, paths);
  std::unique_ptr<Cache> cache = cacheOf(options);
  SourceTree tree = sourcesOf(options, input);
  // Numbers on the work are of work that is done.
  // What a revision is called may mean another one tomorrow.
  bool keep = cache && !options.flag("verbose") && since.empty();
  CacheKey key{};
  if (keep) {
    key = keyOf(tree, input, style, question);
    if (auto bytes = cache->get(key)) {
      nlohmann::json kept = nlohmann::json::from_cbor(*bytes, true, false);
      if (kept.is_object() && kept.contains("text") && kept.contains("messages") && kept.contains("problems") && kept.contains("exitCode")) {
        for (const std::string& line : kept["problems"].get<std::vector<std::string>>()) warn(line);
        emit(options, kept["text"].get<std::string>());
        for (const std::string& line : kept["messages"].get<std::vector<std::string>>()) say(options, line);
        cache->write();
        return kept["exitCode"].get<int>();
      }
    }
  }
  std::string root = tree.root;
  auto result = worked(options, input, std::move(tree), assess, cache.get());
  if (!since.empty()) leaveOutKnown(*result, options, input, root, since, cache.get());
  Answer made = make(*result);
  if (made.exitCode == kDone && !result->problems.empty()) made.exitCode = kUnreadable;
  emit(options, made.text);
  for (const std::string& line : made.messages) say(options, line);
  if (keep && result->lasting) {
    std::vector<std::string> problems;
    for (const Error& problem : result->problems) problems.push_back(problem.line());
    // In a binary form, for names in it may be of any bytes.
    std::vector<uint8_t> bytes = nlohmann::json::to_cbor({{"text", made.text}, {"messages", made.messages}, {"problems", problems}, {"exitCode", made.exitCode}});
    cache->put(key, std::string(bytes.begin(), bytes.end()));
    cache->write();
  }
  return made.exitCode;
}

size_t entityOf(const Analysis& analysis, const std::string& name) {
  std::vector<size_t> found = entitiesNamed(analysis, name);
  if (found.size() == 1) return found.front();
  if (found.size() > 1) {
    std::vector<std::string> ids;
    for (size_t i : found) ids.push_back(analysis.survey.entities[i].id);
    throw Stop{kWrongUse, "'" + name + "' may mean " + joinWith(ids, ", ")};
  }
  std::vector<std::string> names;
  for (const Entity& e : analysis.survey.entities) {
    names.push_back(e.name);
    if (e.id != e.name) names.push_back(e.id);
  }
  std::vector<std::string> nearest = nearestNames(name, names);
  throw Stop{kWrongUse, "no shared state is called '" + name + "'" + (nearest.empty() ? "" : "; did you mean " + joinWith(nearest, " or ") + "?")};
}

std::string wordOf(const Options& options, const char* option) { return choiceOf(std::string("--") + option, options.text(option), wordsOf(options.command->name, option)); }

std::string choiceOf(const std::string& what, const std::string& value, const std::vector<std::string>& allowed) {
  if (std::find(allowed.begin(), allowed.end(), value) != allowed.end()) return value;
  std::vector<std::string> nearest = nearestNames(value, allowed);
  throw Stop{kWrongUse, what + " is one of " + joinWith(allowed, ", ") + (nearest.empty() ? "" : "; did you mean " + nearest.front() + "?")};
}

void writeFile(const std::string& path, const std::string& text) {
  std::ofstream out(path, std::ios::binary | std::ios::trunc);
  out << text;
  if (!out.flush()) throw Stop{kUnreadable, path + ": cannot be written"};
}

void emit(const Options& options, const std::string& text) {
  if (options.has("out")) {
    writeFile(options.text("out"), text);
    return;
  }
  std::cout << text;
  std::cout.flush();
}

void say(const Options& options, const std::string& line) {
  if (!options.flag("quiet")) std::cerr << line << "\n";
}

void warn(const std::string& line) { std::cerr << "elmcart: " << line << "\n"; }

}  // namespace elmcart::cli
