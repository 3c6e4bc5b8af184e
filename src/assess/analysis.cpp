#include "assess/analysis.h"

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <future>

#include "base/text.h"

namespace elmcart {
namespace {

double secondsSince(std::chrono::steady_clock::time_point& mark) {
  auto now = std::chrono::steady_clock::now();
  double seconds = std::chrono::duration<double>(now - mark).count();
  mark = now;
  return seconds;
}

}  // namespace

const Subject& Analysis::subject() const {
  if (!judging_) judging_ = std::make_unique<Judging>(program, *origins, survey, config);
  return judging_->subject;
}

LoadOptions loadOptionsOf(const Config& config, unsigned jobs) {
  LoadOptions options;
  options.walk.leaveOut = config.leaveOut;
  options.walk.honourGitignore = config.gitignore;
  options.walk.only = config.only;
  options.jobs = jobs;
  return options;
}

std::unique_ptr<Analysis> analyse(SourceTree tree, const Config& config, unsigned jobs, bool withAssessment, Cache* cache) {
  auto out = std::make_unique<Analysis>();
  out->config = config;
  auto mark = std::chrono::steady_clock::now();
  size_t bytes = 0;
  for (const std::string& text : tree.texts) bytes += text.size();
  Linking linking(tree.root, tree.files.size(), bytes, jobs);
  LoadedTree loaded = lowerTree(std::move(tree), jobs, cache, [&](LoweredFile file) {
    bool test = config.tests.match(file.path);
    linking.add(std::move(file), test);
  });
  // The cache is written while the rest is worked out.
  std::future<void> writing;
  if (cache) writing = std::async(std::launch::async, [cache] { cache->write(); });
  out->problems = std::move(loaded.problems);
  out->unread = std::move(loaded.unread);
  out->bytes = loaded.bytes;
  out->unreadFiles = loaded.unreadFiles;
  out->unreadBytes = loaded.unreadBytes;
  out->fromCache = loaded.fromCache;
  out->lasting = loaded.lasting;
  out->loadSeconds = secondsSince(mark);
  out->program = linking.finish();
  out->program.testFile = testFilesOf(out->program, config);
  out->linkSeconds = secondsSince(mark);
  out->origins = std::make_unique<Origins>(out->program, jobs);
  out->survey = surveyProgram(out->program, *out->origins, jobs, config.tests);
  out->surveySeconds = secondsSince(mark);
  if (withAssessment) {
    auto seen = readEvidence(evidencePath(config, out->program.root));
    if (!seen) out->problems.push_back(seen.error());
    out->assessment = assessProgram(out->subject(), seen ? *seen : std::vector<Seen>{});
    out->assessSeconds = secondsSince(mark);
  }
  return out;
}

std::string evidencePath(const Config& config, const std::string& root) {
  namespace fs = std::filesystem;
  fs::path folder = config.path.empty() ? fs::path(root) : fs::path(config.path).parent_path();
  return (folder / kEvidenceFile).string();
}

Result<std::unique_ptr<Analysis>> analyse(const std::string& path, const Config& config, unsigned jobs, bool withAssessment) {
  auto tree = readTree(path, loadOptionsOf(config, jobs));
  if (!tree) return tree.error();
  return analyse(std::move(*tree), config, jobs, withAssessment, nullptr);
}

std::vector<size_t> entitiesNamed(const Analysis& analysis, std::string_view name) {
  std::vector<size_t> exact, byEnd;
  for (size_t i = 0; i < analysis.survey.entities.size(); ++i) {
    const Entity& e = analysis.survey.entities[i];
    if (e.id == name) exact.push_back(i);
    size_t front = e.id.size() > name.size() ? e.id.size() - name.size() : 0;
    std::string_view id(e.id);
    bool ends = front > 0 && id.substr(front) == name && (id.substr(0, front).ends_with("::") || id.substr(0, front).ends_with(".") || id.substr(0, front).ends_with("\\"));
    if (e.name == name || e.shown == name || ends) byEnd.push_back(i);
  }
  if (!exact.empty()) return exact;
  // Among several of one name the harmless ones step back.
  std::vector<size_t> real;
  for (size_t i : byEnd)
    if (!analysis.survey.entities[i].harmless) real.push_back(i);
  if (!byEnd.empty()) return real.empty() ? byEnd : real;
  // The class of what is kept in a variable of another name.
  for (size_t i = 0; i < analysis.survey.entities.size(); ++i)
    if (const Entity& e = analysis.survey.entities[i]; !e.harmless && e.type != kNone && (analysis.program.text(analysis.program.types[e.type].name) == name || analysis.program.text(analysis.program.types[e.type].qualified) == name)) real.push_back(i);
  return real;
}

std::vector<std::string> nearestNames(std::string_view wrong, const std::vector<std::string>& names) {
  std::vector<std::pair<size_t, std::string>> ranked;
  std::string lower = lowerCase(wrong);
  for (const std::string& name : names) {
    size_t distance = editDistance(lower, lowerCase(name));
    if (distance <= std::max<size_t>(2, wrong.size() / 3)) ranked.emplace_back(distance, name);
  }
  std::sort(ranked.begin(), ranked.end());
  ranked.erase(std::unique(ranked.begin(), ranked.end()), ranked.end());
  std::vector<std::string> out;
  for (size_t i = 0; i < ranked.size() && i < 3; ++i) out.push_back(ranked[i].second);
  return out;
}

}  // namespace elmcart
