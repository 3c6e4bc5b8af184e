#include "program/load.h"

#include <algorithm>
#include <map>
#include <memory>

#include "base/parallel.h"

namespace elmcart {
namespace {

LoweredFile lowerOne(const Language& language, std::string_view path, std::string_view text, const Language::TreeLore* lore) {
  LoweredFile file;
  file.path = path;
  file.language = language.id;
  file.textSize = static_cast<uint32_t>(text.size());
  file.nodes.reserve(text.size() / 11 + 16);
  file.lineStarts = lineStartsOf(text);
  try {
    language.lower(text, lore, file);
  } catch (const std::exception& error) {
    // A fault of ours must not take the other files along.
    file.nodes.resize(1);
    file.nodes[0] = {};
    file.nodes[0].kind = Kind::Unit;
    file.comments.clear();
    file.unreadBytes = file.textSize;
    file.problem = std::string("left unread, for reading it failed inside Elm Cart (") + error.what() + "); please report it";
  }
  file.names.seal();
  for (Span span : file.comments) {
    std::string_view comment = text.substr(span.begin, span.size());
    size_t at = comment.find("elmcart:");
    if (at != std::string_view::npos) file.notes.emplace_back(file.lineOf(span.begin), std::string(comment.substr(at + 8)));
  }
  return file;
}

}  // namespace

bool isWanted(std::string_view relative, const std::string& absolute) {
  bool needsText = false;
  return mayBeSource(relative, needsText) && (!needsText || isScript(absolute));
}

Result<LoadedTree> loadTree(const std::string& path, const LoadOptions& options) {
  auto walked = walkTree(path, options.walk, isWanted);
  if (!walked) return walked.error();
  LoadedTree out;
  out.root = walked->root;
  out.problems = std::move(walked->problems);

  size_t count = walked->files.size();
  std::vector<std::string> texts(count);
  std::vector<Error> failures(count);
  std::vector<LoweredFile> lowered(count);
  std::vector<size_t> sizes;
  for (const FoundFile& file : walked->files) sizes.push_back(file.size);
  forEachLargestFirst(sizes, options.jobs, [&](size_t i) {
    auto text = readSource(walked->files[i].absolute);
    if (text) texts[i] = std::move(*text);
    else failures[i] = {walked->files[i].path, text.error().reason};
  });
  std::vector<const Language*> languageOfFile(count);
  for (size_t i = 0; i < count; ++i) languageOfFile[i] = languageOf(walked->files[i].path, texts[i]);
  std::map<const Language*, std::unique_ptr<Language::TreeLore>> lore;
  for (const Language& language : languages()) {
    if (!language.learn) continue;
    std::vector<std::string_view> views;
    bool any = false;
    for (size_t i = 0; i < count; ++i) {
      if (!languageOfFile[i] || familyOf(*languageOfFile[i]) != familyOf(language)) continue;
      views.push_back(texts[i]);
      any |= languageOfFile[i] == &language;
    }
    if (any) lore[&language] = language.learn(views, options.jobs);
  }
  forEachLargestFirst(sizes, options.jobs, [&](size_t i) {
    const Language* language = languageOfFile[i];
    if (!failures[i].reason.empty() || !language) return;
    auto known = lore.find(language);
    lowered[i] = lowerOne(*language, walked->files[i].path, texts[i], known == lore.end() ? nullptr : known->second.get());
    texts[i].clear();
    texts[i].shrink_to_fit();
  });

  for (size_t i = 0; i < count; ++i) {
    if (!failures[i].reason.empty()) {
      out.problems.push_back(failures[i]);
      continue;
    }
    if (!languageOfFile[i]) continue;  // a script of another language
    if (!lowered[i].problem.empty()) out.problems.push_back({lowered[i].path, lowered[i].problem});
    out.bytes += lowered[i].textSize;
    out.unreadBytes += lowered[i].unreadBytes;
    out.unreadFiles += lowered[i].unreadBytes > 0;
    out.files.push_back(std::move(lowered[i]));
  }
  std::sort(out.problems.begin(), out.problems.end(), [](const Error& a, const Error& b) { return a.subject < b.subject; });
  return out;
}

LoweredFile lowerText(std::string_view path, std::string_view text) {
  const Language* language = languageOf(path, text);
  std::unique_ptr<Language::TreeLore> lore;
  if (language->learn) lore = language->learn(std::vector<std::string_view>{text}, 1);
  return lowerOne(*language, path, text, lore.get());
}

}  // namespace elmcart
