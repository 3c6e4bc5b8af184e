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

Result<LoadedTree> loadTree(const std::string& path, const LoadOptions& options) {
  auto walked = walkTree(path, options.walk, [](std::string_view p) { return languageOfPath(p) != nullptr; });
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
  std::map<const Language*, std::unique_ptr<Language::TreeLore>> lore;
  for (const Language& language : languages()) {
    if (!language.learn) continue;
    std::vector<std::string_view> views;
    for (size_t i = 0; i < count; ++i)
      if (languageOfPath(walked->files[i].path) == &language) views.push_back(texts[i]);
    if (!views.empty()) lore[&language] = language.learn(views, options.jobs);
  }
  forEachLargestFirst(sizes, options.jobs, [&](size_t i) {
    if (!failures[i].reason.empty()) return;
    const Language* language = languageOfPath(walked->files[i].path);
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
  const Language* language = languageOfPath(path);
  std::unique_ptr<Language::TreeLore> lore;
  if (language->learn) lore = language->learn(std::vector<std::string_view>{text}, 1);
  return lowerOne(*language, path, text, lore.get());
}

}  // namespace elmcart
