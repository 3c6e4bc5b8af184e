// How the moves write C++.
#include "base/text.h"
#include "languages/cpp/cpp.h"

namespace elmcart {
namespace {

std::string forwardDeclaration(std::string_view form, std::string_view qualified) {
  std::string_view scope = scopePart(qualified);
  std::string inner = std::string(form) + " " + std::string(lastPart(qualified)) + ";";
  return scope.empty() ? inner : "namespace " + std::string(scope) + " { " + inner + " }";
}

}  // namespace

const Phrases& cppPhrases() {
  static const Phrases kPhrases = [] {
    Phrases p;
    p.parameter = [](std::string_view type, std::string_view name) { return std::string(type) + "& " + std::string(name); };
    p.parameterWithDefault = [](std::string_view type, std::string_view name, std::string_view value) {
      return std::string(type) + "& " + std::string(name) + " = " + std::string(value);
    };
    p.field = [](std::string_view type, std::string_view name) { return std::string(type) + "& " + std::string(name) + ";"; };
    p.fieldInit = [](std::string_view field, std::string_view value) { return std::string(field) + "(" + std::string(value) + ")"; };
    p.forwardDeclaration = forwardDeclaration;
    p.import = [](std::string_view path) { return "#include \"" + std::string(path) + "\""; };
    p.localInstance = [](std::string_view type, std::string_view name) { return std::string(type) + " " + std::string(name) + ";"; };
    p.memberAccess = ".";
    p.ownedType = "std::unique_ptr<{type}>";
    p.makeOwned = "std::make_unique<{type}>({arguments})";
    p.bareOfOwned = "{name}.get()";
    p.freeOwned = "{name}.reset()";
    p.ownedImport = "#include <memory>";
    return p;
  }();
  return kPhrases;
}

}  // namespace elmcart
