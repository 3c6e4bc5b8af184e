#include "confirm/coverage.h"

#include <algorithm>
#include <charconv>
#include <pugixml.hpp>

#include "base/text.h"
#include "source/git.h"

namespace elmcart {
namespace {

bool readNumber(std::string_view text, uint64_t& out) {
  auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), out);
  return error == std::errc() && end != text.data();
}

// SF:path, then DA:line,count…, then end_of_record.
LineCounts readTracefile(const std::string& text) {
  LineCounts out;
  std::map<uint32_t, uint64_t>* file = nullptr;
  for (const std::string& line : splitLines(text)) {
    if (line.rfind("SF:", 0) == 0) {
      file = &out[std::string(trim(std::string_view(line).substr(3)))];
    } else if (file && line.rfind("DA:", 0) == 0) {
      std::string_view rest = std::string_view(line).substr(3);
      size_t comma = rest.find(',');
      uint64_t number = 0, count = 0;
      if (comma != std::string_view::npos && readNumber(rest.substr(0, comma), number) && readNumber(rest.substr(comma + 1), count)) (*file)[static_cast<uint32_t>(number)] += count;
    } else if (line == "end_of_record") {
      file = nullptr;
    }
  }
  return out;
}

// path:line.column,line.column statements count
LineCounts readGoProfile(const std::string& text) {
  LineCounts out;
  for (const std::string& line : splitLines(text)) {
    size_t colon = line.rfind(':'), space = line.rfind(' ');
    if (line.rfind("mode:", 0) == 0 || colon == std::string::npos || space == std::string::npos || space < colon) continue;
    std::string_view range = std::string_view(line).substr(colon + 1);
    uint64_t from = 0, to = 0, count = 0;
    size_t comma = range.find(',');
    if (comma == std::string_view::npos || !readNumber(range, from) || !readNumber(range.substr(comma + 1), to) || !readNumber(std::string_view(line).substr(space + 1), count)) continue;
    std::map<uint32_t, uint64_t>& file = out[line.substr(0, colon)];
    for (uint64_t at = from; at <= to && at - from < 100000; ++at) file[static_cast<uint32_t>(at)] += count;
  }
  return out;
}

void readXmlNode(const pugi::xml_node& node, const std::string& package, LineCounts& out) {
  for (const pugi::xml_node& child : node.children()) {
    std::string name = child.name();
    if (name == "class" && child.attribute("filename")) {
      std::map<uint32_t, uint64_t>& file = out[child.attribute("filename").value()];
      for (const auto& found : child.select_nodes("lines/line")) {
        uint64_t& count = file[found.node().attribute("number").as_uint()];
        count = std::max<uint64_t>(count, found.node().attribute("hits").as_ullong());
      }
    } else if (name == "sourcefile" && child.attribute("name")) {
      std::map<uint32_t, uint64_t>& file = out[(package.empty() ? "" : package + "/") + child.attribute("name").value()];
      for (const pugi::xml_node& line : child.children("line")) file[line.attribute("nr").as_uint()] += line.attribute("ci").as_ullong();
    } else {
      readXmlNode(child, name == "package" ? child.attribute("name").value() : package, out);
    }
  }
}

// Does one path end as the other one whole: what one leaves out is a folder above?
bool sameFile(std::string_view a, std::string_view b) {
  if (a.size() < b.size()) std::swap(a, b);
  while (b.substr(0, 2) == "./") b.remove_prefix(2);
  return a.ends_with(b) && (a.size() == b.size() || a[a.size() - b.size() - 1] == '/');
}

}  // namespace

Result<LineCounts> readCoverage(const std::string& text, const std::string& path) {
  std::string_view head = trim(std::string_view(text).substr(0, 4000));
  if (head.substr(0, 5) == "mode:") return readGoProfile(text);
  if (head.substr(0, 1) == "<") {
    pugi::xml_document document;
    if (pugi::xml_parse_result parsed = document.load_string(text.c_str()); !parsed) return Error{path, std::string("no coverage file: ") + parsed.description()};
    LineCounts out;
    readXmlNode(document, "", out);
    if (out.empty()) return Error{path, "no coverage file: it names no source file"};
    return out;
  }
  LineCounts out = readTracefile(text);
  if (out.empty()) return Error{path, "no coverage file of a form that is known"};
  return out;
}

std::vector<uint32_t> changedLines(const std::string& before, const std::string& after) {
  std::vector<uint32_t> out;
  git_diff_options options;
  git_diff_options_init(&options, GIT_DIFF_OPTIONS_VERSION);
  options.context_lines = 0;
  options.flags |= GIT_DIFF_FORCE_TEXT;
  startGit();
  git_diff_buffers(before.data(), before.size(), "a", after.data(), after.size(), "b", &options, nullptr, nullptr, nullptr,
                   [](const git_diff_delta*, const git_diff_hunk*, const git_diff_line* line, void* into) {
                     if (line->origin == GIT_DIFF_LINE_ADDITION) static_cast<std::vector<uint32_t>*>(into)->push_back(static_cast<uint32_t>(line->new_lineno));
                     return 0;
                   },
                   &out);
  return out;
}

std::string ChangeCoverage::summary() const {
  if (!asked) return "";
  std::string out;
  if (changed > 0) out = executed == 0 ? "no changed line is executed by the tests" : std::to_string(executed) + " of " + counted(changed, "changed line is", "changed lines are") + " executed by the tests";
  else if (untold.empty()) return "no changed line runs code";
  if (!missed.empty()) {
    out += "; not ";
    std::string file;
    for (size_t i = 0; i < missed.size() && i < 12; ++i) {
      out += (i ? ", " : "") + (missed[i].first == file ? "" : missed[i].first + ":") + std::to_string(missed[i].second);
      file = missed[i].first;
    }
    if (missed.size() > 12) out += " and " + std::to_string(missed.size() - 12) + " more";
  }
  if (!untold.empty()) out += (out.empty() ? "" : "; ") + std::string("the coverage does not tell of ") + joinWith(untold, ", ");
  return out;
}

ChangeCoverage coverageOf(const LineCounts& counts, bool asked, const std::map<std::string, std::pair<std::string, std::string>>& change) {
  ChangeCoverage out;
  out.asked = asked;
  if (!asked) return out;
  for (auto& [path, texts] : change) {
    std::vector<uint32_t> lines = changedLines(texts.first, texts.second);
    if (lines.empty()) continue;
    const std::map<uint32_t, uint64_t>* told = nullptr;
    for (auto& [file, found] : counts)
      if (sameFile(file, path) && (!told || file == path)) told = &found;
    if (!told) {
      out.untold.push_back(path);
      continue;
    }
    for (uint32_t line : lines) {
      auto at = told->find(line);
      if (at == told->end()) continue;
      ++out.changed;
      if (at->second > 0) ++out.executed;
      else out.missed.emplace_back(path, line);
    }
  }
  return out;
}

}  // namespace elmcart
