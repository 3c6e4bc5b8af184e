// Lowers a C++ file: prepare (macros and #if), parse, repair what still cannot
// be read, then one walk over the grammar's tree.
#include <array>
#include <string>

#include "languages/cpp/cpp.h"
#include "languages/cpp/lowerer.h"
#include "languages/cpp/prepare.h"
#include "languages/cpp/repair.h"
#include "languages/grammar.h"

extern "C" const TSLanguage* tree_sitter_cpp(void);

namespace elmcart {
namespace {

// Beyond that depth of brackets a file is not even parsed.
constexpr size_t kBracketLimit = 5000;

void parseOnlyCpp(std::string_view text) {
  parseAndDrop(tree_sitter_cpp(), text);
}

constexpr std::array<std::string_view, 11> kExtensions = {".cpp", ".cc", ".cxx", ".c++", ".h", ".hpp", ".hh", ".hxx", ".h++", ".ipp", ".inl"};
constexpr std::array<std::string_view, 1> kModes = {"c++"};  // how editors call it, in the first line of a header without extension
constexpr std::array<std::string_view, 7> kHeaders = {".h", ".hpp", ".hh", ".hxx", ".h++", ".ipp", ".inl"};

}  // namespace

namespace {

void lowerPrepared(PreparedText prepared, const MacroLore* macros, LoweredFile& out) {
  // @class Name; says to a file of Objective-C++ that there is such a class.
  for (size_t at = prepared.text.find("@class "); at != std::string::npos; at = prepared.text.find("@class ", at + 1)) {
    size_t end = prepared.text.find_first_of(";\n", at);
    if (end != std::string::npos && prepared.text[end] == ';') prepared.text.replace(at, end + 1 - at, end + 1 - at, ' ');
  }
  if (prepared.bracketDepth > kBracketLimit) {
    // The parser runtime itself does not bear any depth.
    out.problem = "left unread: brackets nested more than " + std::to_string(kBracketLimit) + " deep";
    TreeBuilder builder(out);
    Span all{0, static_cast<uint32_t>(prepared.text.size())};
    builder[0].span = all;
    builder.add(0, Kind::Unread, Role::None, all);
    out.unreadBytes = all.size();
    return;
  }
  ParserHandle parser = makeParser(tree_sitter_cpp());
  const std::string written = prepared.text;  // the repair may do away with brackets
  TreeHandle tree = parseRepaired(parser, prepared.text, macros);
  out.comments = std::move(prepared.comments);
  out.otherBranches = std::move(prepared.otherBranches);
  cpp::Lowerer(prepared.text, written, macros, out, ts_tree_root_node(tree.get())).run();
  addIncludes(prepared, out);
  addHeldByCallers(prepared, out);
}

}  // namespace

void lowerCpp(std::string_view text, const Language::TreeLore* lore, LoweredFile& out) {
  const auto* macros = static_cast<const MacroLore*>(lore);
  lowerEither(text, macros, out, [&](PreparedText prepared, LoweredFile& into) { lowerPrepared(std::move(prepared), macros, into); });
}

Language cppLanguage() {
  Language language;
  language.id = "cpp";
  language.name = "C++";
  language.family = "c";
  language.extensions = kExtensions;
  // Not those of libraries whose tests stand in the files of the program, behind a condition.
  language.testImports = {"gtest/gtest.h", "gmock/gmock.h", "boost/test", "QtTest", "QTest", "cppunit", "CppUTest"};
  language.headerExtensions = kHeaders;
  language.interpreters = kModes;
  language.marksConstants = true;
  language.guarantees = &cppGuarantees();
  language.facing = &cppFacing();
  language.settling = &cppSettling();
  language.announcing = &cppAnnouncing();
  language.mending = &cppMending();
  language.sound = &cppSound();
  language.owning = &cppOwning();
  language.includeLine = "#include \"{path}\"";
  language.learn = learnMacros;
  language.lower = lowerCpp;
  language.harness = cppHarness;
  language.grammar = tree_sitter_cpp;
  language.writer = cppWriter;
  language.parseOnly = parseOnlyCpp;
  return language;
}

}  // namespace elmcart
