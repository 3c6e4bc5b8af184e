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
#include "languages/php/php.h"
#include "languages/python/python.h"
#include "languages/swift/swift.h"
#include "languages/typescript/typescript.h"

namespace elmcart {

std::span<const Language> languages() {
  static const std::array kTable = {cppLanguage(), javaLanguage(), pythonLanguage(), javascriptLanguage(), typescriptLanguage(), tsxLanguage(), goLanguage(), csharpLanguage(), phpLanguage(), kotlinLanguage(), swiftLanguage(), dartLanguage()};
  return kTable;
}

const Language* languageById(std::string_view id) {
  for (const Language& language : languages())
    if (language.id == id) return &language;
  return nullptr;
}

const Language* languageOfPath(std::string_view path) {
  size_t dot = path.rfind('.');
  if (dot == std::string_view::npos || path.find('/', dot) != std::string_view::npos) return nullptr;
  std::string extension = lowerCase(path.substr(dot));
  for (const Language& language : languages())
    if (std::find(language.extensions.begin(), language.extensions.end(), extension) != language.extensions.end())
      return &language;
  return nullptr;
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
uint32_t Guarantees::callTraits(std::string_view qualified) const { return traitsIn(calls, qualified, byLastPart); }

}  // namespace elmcart
