// What writers ask about the rest of the program, answered from it.
#pragma once

#include "languages/writer.h"
#include "program/program.h"
#include "rework/source_scan.h"

namespace elmcart {

class ProgramAround : public Surroundings {
 public:
  explicit ProgramAround(const Program& program) : p_(program), scan_(program) {}

  std::vector<Spot> declarationsOf(Spot one) const override;
  bool isHeader(const LoweredFile& file) const override { return p_.isHeader(indexOf(file)); }
  bool sees(const LoweredFile& file, const LoweredFile& other) const override { return &file == &other || scan_.includes(indexOf(file), indexOf(other)); }
  void include(const LoweredFile& file, const LoweredFile& other, std::vector<FileEdit>& edits) override;
  // Where the text names a member of a class, or a function of that name, outside of comments.
  std::vector<std::pair<FileIndex, uint32_t>> mentions(const std::string& owner, const std::string& name) { return scan_.mentions(owner, name); }
  bool sameStatement(FileIndex file, uint32_t begin, uint32_t offset) { return scan_.sameStatement(file, begin, offset); }
  Span parameterList(Spot function) override;
  void addMember(Spot type, bool open, const std::string& text, std::vector<FileEdit>& edits) override;
  void insertLineBefore(Spot member, const std::string& line, std::vector<FileEdit>& edits) override { scan_.insertLineBefore(placeOf(member), line, edits); }

  Place placeOf(Spot spot) const { return {indexOf(*spot.file), spot.node}; }

 private:
  FileIndex indexOf(const LoweredFile& file) const { return static_cast<FileIndex>(&file - p_.files.data()); }

  const Program& p_;
  // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
  SourceScan scan_;
};

}  // namespace elmcart
