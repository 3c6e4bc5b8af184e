// The samples state what must be found, on the line where it must be found:
//   // entity: KIND NAME CREATION GUARD
//   // finding: CHECK [CHECK …]
//   // harmless: NAME
//   // near: CHECK [CHECK …]   a near miss: what looks like it, and is not
// Anything missing and anything extra fails. A folder is one program; so is a
// file that lies directly in the samples.
#include <gtest/gtest.h>

#include <algorithm>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <map>
#include <set>
#include <sstream>

#include "assess/analysis.h"
#include "base/text.h"
#include "source/walk.h"

namespace elmcart {
namespace {
namespace fs = std::filesystem;

std::string strip(const std::string& path) { return fs::path(path).filename().string(); }

std::set<std::string> expectedIn(const std::string& root, std::set<std::string>* near = nullptr) {
  std::set<std::string> out;
  std::vector<std::string> files;
  if (fs::is_directory(root)) {
    for (const auto& entry : fs::recursive_directory_iterator(root))
      if (entry.is_regular_file()) files.push_back(entry.path().string());
  } else {
    files.push_back(root);
  }
  for (const std::string& file : files) {
    auto text = readWhole(file);
    if (!text) continue;
    size_t number = 0;
    for (const std::string& line : splitLines(*text)) {
      ++number;
      std::string where = strip(file) + ":" + std::to_string(number) + " ";
      bool hash = fs::path(file).extension() == ".py";
      std::string mark = hash ? "# " : "// ";
      for (size_t at = line.find(mark); at != std::string::npos; at = line.find(mark, at + 1)) {
        std::istringstream words(line.substr(at + mark.size()));
        std::string head, word;
        words >> head;
        if (head == "entity:") {
          std::string rest;
          for (int i = 0; i < 4 && words >> word; ++i) rest += " " + word;
          out.insert(where + "entity" + rest);
        } else if (head == "harmless:") {
          words >> word;
          out.insert(where + "harmless " + word);
        } else if (head == "finding:") {
          while (words >> word && word != trim(mark)) out.insert(where + "finding " + word);
        } else if (head == "near:") {
          while (words >> word && word != trim(mark)) {
            EXPECT_NE(checkById(word), nullptr) << where << word;
            EXPECT_FALSE(out.count(where + "finding " + word)) << where << "is said to be " << word << " and nearly so";
            if (near) near->insert(where + "finding " + word);
          }
        }
      }
    }
  }
  return out;
}

std::set<std::string> foundIn(const std::string& root) {
  std::set<std::string> out;
  auto config = findConfig(root);
  EXPECT_TRUE(config.ok()) << root;
  if (!config) return out;
  auto analysis = analyse(root, *config, 1, true);
  EXPECT_TRUE(analysis.ok()) << root;
  if (!analysis) return out;
  const Analysis& a = **analysis;
  EXPECT_EQ(a.unreadBytes, 0u) << root;
  auto at = [&](Place place) { return strip(a.program.path(place)) + ":" + std::to_string(a.program.line(place)) + " "; };
  for (const Entity& e : a.survey.entities) {
    if (e.harmless) out.insert(at(e.place) + "harmless " + e.name);
    else out.insert(at(e.place) + "entity " + std::string(kindText(e.toldKind())) + " " + e.name + " " + std::string(creationText(e.creation.time)) + " " + std::string(guardText(e.creation.guard)));
  }
  for (const Entity& e : a.survey.managed) out.insert(at(e.place) + "entity container-managed " + e.name);
  for (const Finding& f : a.assessment.findings)
    for (const Evidence& e : f.evidence) EXPECT_TRUE(e.place.known()) << f.check << ": " << e.note;
  for (const Finding& f : a.assessment.findings)
    if (f.acceptedBecause.empty()) out.insert(at(f.place) + "finding " + f.check);
  return out;
}

std::vector<std::string> samplePaths() {
  std::vector<std::string> out;
  for (const auto& language : fs::directory_iterator(ELMCART_SAMPLES)) {
    if (!language.is_directory()) continue;
    for (const auto& entry : fs::directory_iterator(language.path())) out.push_back(entry.path().string());
  }
  std::sort(out.begin(), out.end());
  return out;
}

void expectSame(const std::string& root, const std::set<std::string>& expected, const std::set<std::string>& found) {
  std::string missing, extra;
  for (const std::string& row : expected) if (!found.count(row)) missing += "  missing: " + row + "\n";
  for (const std::string& row : found) if (!expected.count(row)) extra += "  extra:   " + row + "\n";
  EXPECT_TRUE(missing.empty() && extra.empty()) << root << "\n" << missing << extra;
}

class Samples : public testing::TestWithParam<std::string> {};

TEST_P(Samples, FindsWhatIsStatedAndNothingElse) {
  expectSame(GetParam(), expectedIn(GetParam()), foundIn(GetParam()));
}

// All languages in one tree: none sees another's declarations.
TEST(SamplesTogether, FindTheSameInOneMixedTree) {
  std::set<std::string> expected;
  for (const auto& language : fs::directory_iterator(ELMCART_SAMPLES))
    if (language.is_directory()) expected.merge(expectedIn(language.path().string()));
  expectSame(ELMCART_SAMPLES, expected, foundIn(ELMCART_SAMPLES));
}

// docs/checks-by-language.md says where each check applies and where it is tested; ELMCART_WRITE=1
// writes it anew. A check is language-neutral: it is tested in the languages whose guarantees differ
// for it, and each language has a finding of each family.
using Counts = std::map<std::string, std::map<std::string, size_t>>;

void countSamples(Counts& reported, Counts& nears) {
  auto count = [](const std::set<std::string>& rows, const std::string& language, Counts& into) {
    for (const std::string& row : rows)
      if (size_t at = row.find(" finding "); at != std::string::npos) ++into[row.substr(at + 9)][language];
  };
  for (const auto& language : fs::directory_iterator(ELMCART_SAMPLES)) {
    if (!language.is_directory()) continue;
    std::set<std::string> near;
    std::string name = language.path().filename().string();
    count(expectedIn(language.path().string(), &near), name, reported);
    count(near, name, nears);
  }
  // What `explain` prints: a failing sample and a sound one.
  for (const auto& check : fs::directory_iterator(ELMCART_EXAMPLES))
    for (const auto& language : fs::directory_iterator(check.path())) {
      ++reported[check.path().filename().string()][language.path().filename().string()];
      ++nears[check.path().filename().string()][language.path().filename().string()];
    }
}

// Two grammars of one language count as one.
std::vector<const Language*> columns() {
  std::vector<const Language*> out;
  for (const Language& language : languages())
    if (out.empty() || out.back()->name != language.name) out.push_back(&language);
  return out;
}

std::string tableOfChecks(const Counts& reported, const Counts& nears) {
  auto countIn = [](const Counts& counts, std::string_view check, std::string_view language) -> size_t {
    auto row = counts.find(std::string(check));
    if (row == counts.end()) return 0;
    auto cell = row->second.find(std::string(language));
    return cell == row->second.end() ? 0 : cell->second;
  };
  std::string table = "# Checks and languages\n\nA check asks for a language's guarantees, never for the language, so it is tested where the guarantees differ.\n"
                      "A cell with numbers: how many samples must be reported there, and behind the stroke how many near misses must not be.\n"
                      "*yes*: the check applies there by the language's guarantees, and is tested elsewhere. A dash: it does not apply, for the reason given below.\n\n| check |";
  for (const Language* language : columns()) table += " " + std::string(language->name) + " |";
  table += "\n|---|";
  for (size_t i = 0; i < columns().size(); ++i) table += "---|";
  table += "\n";
  std::map<std::string, std::string> reasons;
  for (const Check& check : checks()) {
    table += "| " + std::string(check.info.id) + " |";
    std::map<std::string, std::vector<std::string>> because;
    for (const Language* language : columns()) {
      std::string_view why = whyNot(check.info, *language->guarantees);
      size_t samples = countIn(reported, check.info.id, language->id), misses = countIn(nears, check.info.id, language->id);
      EXPECT_TRUE(why.empty() || samples == 0) << check.info.id << " is said not to apply, and is reported, in " << language->name;
      table += !why.empty() ? " – |" : samples + misses > 0 ? " " + std::to_string(samples) + "/" + std::to_string(misses) + " |" : " yes |";
      if (!why.empty()) because[std::string(why)].emplace_back(language->name);
    }
    table += "\n";
    for (auto& [why, names] : because) reasons[std::string(check.info.id)] += (reasons[std::string(check.info.id)].empty() ? "" : "; ") + joinWith(names, ", ") + ": " + why;
  }
  table += "\n";
  for (auto& [check, why] : reasons) table += "- " + check + ": " + why + ".\n";
  return table;
}

TEST(SamplesTogether, TestEachCheckAndEachFamily) {
  Counts reported, nears;
  countSamples(reported, nears);
  std::map<std::pair<std::string, std::string_view>, bool> families;  // by language: is there a finding?
  for (const Check& check : checks()) {
    std::string id(check.info.id), family = id.substr(0, id.find('.'));
    size_t applies = 0;
    for (const Language* language : columns()) {
      if (!whyNot(check.info, *language->guarantees).empty()) continue;
      ++applies;
      families[{family, language->id}] |= reported[id].count(std::string(language->id)) > 0;
    }
    size_t least = std::min<size_t>(applies, 2), samples = 0, misses = 0;
    for (auto& [language, count] : reported[id]) samples += count;
    for (auto& [language, count] : nears[id]) misses += count;
    EXPECT_GE(reported[id].size(), least) << id << " must be reported in two languages at least";
    EXPECT_TRUE(samples >= 2 && misses >= 2) << id << " needs two samples and two near misses, and has " << samples << " and " << misses;
  }
  for (auto& [key, found] : families) EXPECT_TRUE(found) << "no finding of " << key.first << " in " << key.second;
}

TEST(SamplesTogether, AreCountedInTheDocumentation) {
  Counts reported, nears;
  countSamples(reported, nears);
  std::string table = tableOfChecks(reported, nears), path = std::string(ELMCART_DOCS) + "/checks-by-language.md";
  if (std::getenv("ELMCART_WRITE")) std::ofstream(path) << table;
  auto written = readWhole(path);
  EXPECT_TRUE(written.ok() && *written == table) << "run the unit tests with ELMCART_WRITE=1 to write " << path << " anew";
}

INSTANTIATE_TEST_SUITE_P(All, Samples, testing::ValuesIn(samplePaths()), [](const auto& info) {
  std::string name = fs::path(info.param).stem().string();
  for (char& c : name) if (!isWordByte(c)) c = '_';
  return fs::path(info.param).parent_path().filename().string() + "_" + name;
});

}  // namespace
}  // namespace elmcart
