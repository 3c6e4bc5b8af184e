#include "manual/manual.h"

#include <fmt/format.h>

#include <cctype>

#include "base/text.h"

namespace elmcart::manual {
namespace {

namespace po = boost::program_options;

std::vector<Option> optionsOf(const cli::Command& command, const po::options_description& described) {
  std::vector<Option> out;
  for (const auto& option : described.options()) {
    Option made;
    made.longName = option->long_name();
    std::string shortName = option->canonical_display_name(po::command_line_style::allow_dash_for_short);
    if (shortName.size() == 2 && shortName[0] == '-') made.shortName = shortName.substr(1);
    made.text = option->description();
    if (option->semantic()->max_tokens() > 0) {
      made.value = option->semantic()->name();
      if (size_t end = made.value.find(" (="); end != std::string::npos) {
        made.fallback = made.value.substr(end + 3, made.value.size() - end - 4);
        made.value.resize(end);
      }
    }
    made.words = cli::wordsOf(command.name, made.longName);
    out.push_back(std::move(made));
  }
  return out;
}

// Text in a page of man(7): a backslash, and a dot or quote that begins a line, mean themselves; so does a dash.
std::string roff(std::string_view text) {
  std::string out;
  for (char c : text) {
    if (c == '\\') out += "\\e";
    else if (c == '-') out += "\\-";
    else out += c;
  }
  return !out.empty() && (out[0] == '.' || out[0] == '\'') ? "\\&" + out : out;
}

std::string optionsText(const std::vector<Option>& options) {
  std::string out;
  for (const Option& o : options) {
    std::string head = o.shortName.empty() ? "" : "\\fB\\-" + o.shortName + "\\fR, ";
    out += ".TP\n" + head + "\\fB\\-\\-" + roff(o.longName) + "\\fR" + (o.value.empty() ? "" : " \\fI" + roff(o.value) + "\\fR") + "\n" + roff(o.text) + (o.fallback.empty() ? "" : roff(" (" + o.fallback + " where it is not given)")) + "\n";
  }
  return out;
}

std::string headText(const std::string& name, const std::string& version, const std::string& answers) {
  std::string title;
  for (char c : name) title += static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
  return ".TH \"" + roff(title) + "\" 1 \"\" \"elmcart " + roff(version) + "\" \"Elm Cart\"\n.SH NAME\n" + roff(name) + " \\- " + roff(answers) + "\n";
}

constexpr const char* kExitCodes =
    ".SH EXIT STATUS\n.TP\n0\nDone.\n.TP\n1\nA gate or a comparison failed, or nothing could be done.\n.TP\n2\nWrong use.\n.TP\n3\nSomething could not be read.\n.TP\n4\nAn inner error.\n";
constexpr const char* kEnvironment =
    ".SH ENVIRONMENT\n.TP\nNO_COLOR\nNo colour on a terminal.\n.TP\nCOLUMNS\nThe width that text is cut to.\n.TP\nXDG_CACHE_HOME, HOME\nWhere the cache is kept: elmcart/ there, or .cache/elmcart/ in the home folder.\n";
constexpr const char* kFiles =
    ".SH FILES\n.TP\nelmcart.toml\nThe configuration, looked for from the named folder upward. \\fBelmcart init\\fR writes one.\n.TP\nelmcart\\-evidence.json\nWhat races have shown; written by \\fBelmcart probe race\\fR.\n";

// In single quotes of a shell.
std::string inQuotes(std::string_view text) {
  std::string out = "'";
  for (char c : text) out += c == '\'' ? std::string("'\\''") : std::string(1, c);
  return out + "'";
}

bool isFolder(const std::string& value) { return value == "FOLDER"; }
bool isFile(const std::string& value) { return value == "FILE" || value == "PATH"; }

std::vector<Option> allOf(const Page& page) {
  std::vector<Option> out = page.own;
  out.insert(out.end(), page.common.begin(), page.common.end());
  return out;
}

std::string commandWords(const std::vector<Page>& pages) {
  std::vector<std::string> names;
  for (const Page& page : pages) names.push_back(page.name);
  return joinWith(names, " ");
}

// What zsh takes for its own in a description.
std::string zshText(std::string_view text) {
  std::string out;
  for (char c : text) {
    if (c == '[' || c == ']' || c == ':' || c == '\\') out += '\\';
    out += c;
  }
  return out;
}

}  // namespace

std::vector<Page> pages() {
  std::vector<Page> out;
  for (const cli::Command& command : cli::commands()) {
    cli::Described described;
    cli::Context context{{}, {}, &described};
    try {
      (void)command.run(context, command);
    } catch (const cli::Stop&) {
      // It has described itself.
    }
    Page page{std::string(command.name), std::string(command.answers), described.operands, {command.examples.begin(), command.examples.end()}, cli::wordsOf(command.name, ""), optionsOf(command, described.own), optionsOf(command, described.common)};
    out.push_back(std::move(page));
  }
  return out;
}

std::string manPage(const Page& page, const std::string& version) {
  std::string name = "elmcart-" + page.name, out = headText(name, version, page.answers);
  out += ".SH SYNOPSIS\n\\fBelmcart " + roff(page.name) + "\\fR [\\fIOPTION\\fR]... " + roff(page.operands) + "\n.SH OPTIONS\n" + optionsText(page.own) + ".SH COMMON OPTIONS\n" + optionsText(page.common) + ".SH EXAMPLES\n";
  for (const std::string& example : page.examples) out += ".PP\n.RS\n" + roff(example) + "\n.RE\n";
  return out + kExitCodes + kFiles + kEnvironment + ".SH SEE ALSO\n\\fBelmcart\\fR(1)\n";
}

std::string manPageOfAll(const std::vector<Page>& pages, const std::string& version) {
  std::string out = headText("elmcart", version, "finds, judges and reworks global shared state");
  out += ".SH SYNOPSIS\n\\fBelmcart\\fR \\fICOMMAND\\fR [\\fIOPTION\\fR]...\n.SH DESCRIPTION\n"
         "Elm Cart finds singletons and other global shared state in object\\-oriented code, checks how it is made, whether it is safe with threads and whether lifetimes hold, "
         "and reworks it toward dependency injection step by step under the project's own tests.\n.SH COMMANDS\n";
  for (const Page& page : pages) out += ".TP\n\\fBelmcart " + roff(page.name) + "\\fR " + roff(page.operands) + "\n" + roff(page.answers) + " See \\fBelmcart\\-" + roff(page.name) + "\\fR(1).\n";
  out += std::string(kExitCodes) + kFiles + kEnvironment + ".SH SEE ALSO\n";
  std::vector<std::string> names;
  for (const Page& page : pages) names.push_back("\\fBelmcart\\-" + roff(page.name) + "\\fR(1)");
  return out + joinWith(names, ",\n") + "\n";
}

std::string bashCompletion(const std::vector<Page>& pages) {
  std::string out = "# Completion of elmcart for bash. Written from the program's own tables.\n"
                    "_elmcart() {\n"
                    "  local word=${COMP_WORDS[COMP_CWORD]} before=${COMP_WORDS[COMP_CWORD-1]} command=${COMP_WORDS[1]}\n"
                    "  COMPREPLY=()\n"
                    "  compopt +o default 2>/dev/null\n"
                    "  if [ \"$COMP_CWORD\" -eq 1 ]; then\n"
                    "    COMPREPLY=($(compgen -W " + inQuotes(commandWords(pages) + " --help --version") + " -- \"$word\"))\n"
                    "    return\n  fi\n  case \"$command $before\" in\n";
  std::string operands;
  for (const Page& page : pages) {
    std::vector<std::string> names;
    for (const Option& o : allOf(page)) {
      names.push_back("--" + o.longName);
      std::string pattern = inQuotes(page.name + " --" + o.longName) + (o.shortName.empty() ? "" : "|" + inQuotes(page.name + " -" + o.shortName));
      if (!o.words.empty()) out += "    " + pattern + ") COMPREPLY=($(compgen -W " + inQuotes(joinWith(o.words, " ")) + " -- \"$word\")); return ;;\n";
      else if (isFolder(o.value)) out += "    " + pattern + ") compopt -o filenames 2>/dev/null; COMPREPLY=($(compgen -d -- \"$word\")); return ;;\n";
      else if (!o.value.empty() && !isFile(o.value)) out += "    " + pattern + ") return ;;\n";
    }
    operands += "      " + page.name + ") words=" + inQuotes(joinWith(names, " ")) + "; first=" + inQuotes(joinWith(page.firstWords, " ")) + " ;;\n";
  }
  return out + "  esac\n  local words='' first=''\n  case \"$command\" in\n" + operands + "  esac\n"
               "  case \"$word\" in\n"
               "    -*) COMPREPLY=($(compgen -W \"$words\" -- \"$word\")) ;;\n"
               "    *)\n"
               "      compopt -o filenames 2>/dev/null\n"
               "      [ \"$COMP_CWORD\" -eq 2 ] && [ -n \"$first\" ] && COMPREPLY=($(compgen -W \"$first\" -- \"$word\"))\n"
               "      COMPREPLY+=($(compgen -f -- \"$word\")) ;;\n"
               "  esac\n}\ncomplete -F _elmcart elmcart\n";
}

std::string zshCompletion(const std::vector<Page>& pages) {
  std::string out = "#compdef elmcart\n# Completion of elmcart for zsh. Written from the program's own tables.\n_elmcart() {\n  local -a commands\n  commands=(\n";
  for (const Page& page : pages) out += "    " + inQuotes(page.name + ":" + page.answers) + "\n";
  out += "  )\n  if (( CURRENT == 2 )); then\n    _describe command commands\n    return\n  fi\n  local command=$words[2]\n  shift words\n  (( CURRENT-- ))\n  case $command in\n";
  for (const Page& page : pages) {
    out += "    " + page.name + ")\n      _arguments -s";
    for (const Option& o : allOf(page)) {
      std::string action = o.value.empty() ? "" : ":" + zshText(o.value) + ":" + (!o.words.empty() ? "(" + joinWith(o.words, " ") + ")" : isFolder(o.value) ? "_files -/" : isFile(o.value) ? "_files" : " ");
      out += " \\\n        " + inQuotes("--" + o.longName + "[" + zshText(o.text) + "]" + action);
      if (!o.shortName.empty()) out += " \\\n        " + inQuotes("-" + o.shortName + "[" + zshText(o.text) + "]" + action);
    }
    if (!page.firstWords.empty()) out += " \\\n        " + inQuotes("1:what:(" + joinWith(page.firstWords, " ") + ")");
    out += " \\\n        '*:path:_files'\n      ;;\n";
  }
  return out + "  esac\n}\n_elmcart \"$@\"\n";
}

std::string fishCompletion(const std::vector<Page>& pages) {
  std::string out = "# Completion of elmcart for fish. Written from the program's own tables.\n";
  for (const Page& page : pages) out += "complete -c elmcart -n __fish_use_subcommand -f -a " + page.name + " -d " + inQuotes(page.answers) + "\n";
  for (const Page& page : pages) {
    std::string begin = "complete -c elmcart -n '__fish_seen_subcommand_from " + page.name + "'";
    if (!page.firstWords.empty()) out += begin + " -a " + inQuotes(joinWith(page.firstWords, " ")) + "\n";
    for (const Option& o : allOf(page)) {
      out += begin + " -l " + o.longName + (o.shortName.empty() ? "" : " -s " + o.shortName);
      if (!o.words.empty()) out += " -x -a " + inQuotes(joinWith(o.words, " "));
      else if (isFolder(o.value)) out += " -x -a '(__fish_complete_directories)'";
      else if (isFile(o.value)) out += " -r";
      else if (!o.value.empty()) out += " -x";
      out += " -d " + inQuotes(o.text) + "\n";
    }
  }
  return out;
}

}  // namespace elmcart::manual
