// The explicit table of languages: one row each.
#include <algorithm>
#include <array>

#include "base/text.h"
#include "languages/cpp/cpp.h"
#include "languages/java/java.h"
#include "languages/csharp/csharp.h"
#include "languages/dart/dart.h"
#include "languages/go/go.h"
#include "languages/javascript/javascript.h"
#include "languages/kotlin/kotlin.h"
#include "languages/language.h"
#include "languages/objc/objc.h"
#include "languages/php/php.h"
#include "languages/python/python.h"
#include "languages/swift/swift.h"
#include "languages/typescript/typescript.h"

namespace elmcart {

std::span<const Language> languages() {
  static const std::array kTable = {cppLanguage(), javaLanguage(), pythonLanguage(), javascriptLanguage(), typescriptLanguage(), tsxLanguage(), goLanguage(), csharpLanguage(), phpLanguage(), kotlinLanguage(), swiftLanguage(), dartLanguage(), objcLanguage()};
  return kTable;
}

const Language* languageById(std::string_view id) {
  for (const Language& language : languages())
    if (language.id == id) return &language;
  return nullptr;
}

namespace {

std::string extensionOf(std::string_view path) {
  size_t dot = path.rfind('.'), slash = path.rfind('/');
  if (dot == std::string_view::npos || (slash != std::string_view::npos && dot < slash)) return "";
  return lowerCase(path.substr(dot));
}

bool holds(std::span<const std::string_view> list, std::string_view word) { return std::find(list.begin(), list.end(), word) != list.end(); }

// "#!/usr/bin/env -S python3.11 -u" names "python".
std::string_view interpreterOf(std::string_view text) {
  if (text.substr(0, 2) != "#!") return {};
  std::string_view line = text.substr(2, std::min(text.find('\n'), text.size()) - 2);
  while (!line.empty()) {
    line = trim(line);
    std::string_view word = line.substr(0, line.find_first_of(" \t"));
    line.remove_prefix(word.size());
    word.remove_prefix(word.rfind('/') == std::string_view::npos ? 0 : word.rfind('/') + 1);
    if (word == "env" || word.substr(0, 1) == "-" || word.find('=') != std::string_view::npos) continue;
    return word.substr(0, word.find_last_not_of("0123456789.") + 1);
  }
  return {};
}

// "-*- C++ -*-" or "-*- mode: c++; tab-width: 2 -*-" in the first line, as editors read it, names "c++".
std::string modeOf(std::string_view text) {
  std::string_view line = text.substr(0, text.find('\n'));
  size_t begin = line.find("-*-"), end = begin == std::string_view::npos ? begin : line.find("-*-", begin + 3);
  if (end == std::string_view::npos) return {};
  std::string mode = lowerCase(trim(line.substr(begin + 3, end - begin - 3)));
  if (size_t at = mode.find("mode:"); at != std::string::npos) mode = mode.substr(at + 5);
  return std::string(trim(std::string_view(mode).substr(0, mode.find(';'))));
}

}  // namespace

bool mayBeSource(std::string_view path, bool& needsText) {
  std::string extension = extensionOf(path);
  needsText = extension.empty();
  for (const Language& language : languages())
    if (holds(language.extensions, extension)) return true;
  return needsText;
}

const Language* languageOf(std::string_view path, std::string_view text) {
  std::string extension = extensionOf(path);
  std::string interpreter = extension.empty() ? std::string(interpreterOf(text)) : std::string();
  if (extension.empty() && interpreter.empty()) interpreter = modeOf(text);
  const Language* found = nullptr;
  for (const Language& language : languages()) {
    if (!interpreter.empty() && holds(language.interpreters, interpreter)) return &language;
    if (extension.empty() || !holds(language.extensions, extension)) continue;
    if (!found || (language.claims && language.claims(text))) found = &language;
  }
  return found;
}

namespace {

uint32_t bitsOf(std::span<const NamedBits> table, std::string_view name) {
  auto found = std::lower_bound(table.begin(), table.end(), name,
                                [](const NamedBits& row, std::string_view key) { return row.name < key; });
  return found != table.end() && found->name == name ? found->bits : 0;
}

uint32_t traitsIn(std::span<const NamedBits> table, std::string_view name, bool byLastPart) {
  for (;;) {
    if (uint32_t bits = bitsOf(table, name); bits || !byLastPart) return bits;
    size_t split = name.find("::");
    if (split == std::string_view::npos) return 0;
    name.remove_prefix(split + 2);
  }
}

}  // namespace

uint32_t Guarantees::typeTraits(std::string_view qualified) const { return traitsIn(types, qualified, byLastPart); }
bool Guarantees::isRoot(std::string_view name) const { return std::find(roots.begin(), roots.end(), name) != roots.end(); }
uint32_t Guarantees::callTraits(std::string_view qualified) const { return traitsIn(calls, qualified, byLastPart); }

}  // namespace elmcart
