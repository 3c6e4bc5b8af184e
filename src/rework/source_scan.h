// Readings of the original bytes that edits need: where a parameter list ends,
// how a line is indented, where an include belongs, where a name is mentioned.
#pragma once

#include <initializer_list>
#include <map>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "program/program.h"
#include "source/edit.h"

namespace elmcart {

class SourceScan {
 public:
  explicit SourceScan(const Program& program) : p_(program) {}

  std::string_view text(FileIndex file);
  const std::string& pathOf(FileIndex file) const { return p_.files[file].path; }
  std::string nodeText(Place place);

  // The offset behind the ')' of a function's parameter list; 0 when it cannot be found.
  uint32_t parameterListEnd(Place function);
  // The white space that the line of a node begins with.
  std::string indentOf(Place place);

  bool inComment(FileIndex file, uint32_t offset) const;
  std::string newlineOf(FileIndex file);
  uint32_t lineBegin(FileIndex file, uint32_t offset);
  uint32_t contentEnd(FileIndex file, uint32_t offset);  // of the line end's first byte
  // The beginning of the lines right above a line's beginning that begin, behind blanks, with one of these: what belongs to it.
  uint32_t withLinesAbove(FileIndex file, uint32_t begin, std::initializer_list<std::string_view> heads);
  uint32_t bodyOpen(TypeIndex type);  // the offset of the bracket that opens a class's body

  void insertLineBefore(Place place, const std::string& line, std::vector<FileEdit>& edits);
  std::string memberIndent(TypeIndex type);
  // In front of public: and the like.
  std::string labelIndent(TypeIndex type);
  void addPublicMember(TypeIndex type, const std::string& member, std::vector<FileEdit>& edits);
  void addPrivateMember(TypeIndex type, const std::string& member, std::vector<FileEdit>& edits);
  // Removes a declaration with the comment that belongs to it and its line ends.
  void removeLines(Place place, std::vector<FileEdit>& edits);
  // The same with what marks it, wherever its node begins, and with blank lines that would be left over.
  void removeDeclaration(Place place, std::vector<FileEdit>& edits);
  // Whole lines that go, with the blank lines beside them that would meet others, or stand first or last in a block.
  Span withBlankLines(FileIndex file, Span lines);

  // ----- includes
  bool includes(FileIndex from, FileIndex to) const;  // also through others
  std::string spellingOf(FileIndex target, FileIndex from) const;
  void addInclude(FileIndex file, const std::string& line, std::vector<FileEdit>& edits);

  // ----- names in the text, outside comments
  std::vector<std::pair<FileIndex, uint32_t>> mentions(const std::string& owner, const std::string& name);
  // Is nothing but the call itself between the two offsets?
  bool sameStatement(FileIndex file, uint32_t begin, uint32_t offset);

 private:
  uint32_t lineEnd(FileIndex file, uint32_t offset);  // of the newline, or the text's end
  FileIndex resolveInclude(FileIndex from, std::string_view path) const;

  const Program& p_;
  std::map<FileIndex, std::string> texts_;
};

}  // namespace elmcart
