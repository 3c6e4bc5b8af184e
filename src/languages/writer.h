// A writer turns changes (changes.h) into edits of one language. It knows how the
// language says a thing and which traps it has; it does not know which move asks.
#pragma once

#include <map>
#include <memory>
#include <set>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "languages/changes.h"
#include "languages/syntax.h"
#include "source/edit.h"

namespace elmcart {

// What a writer asks about other files of the program, in languages that declare a thing in several places and include files.
class Surroundings {
 public:
  virtual ~Surroundings() = default;
  // All declarations of the function or variable that one of them stands for.
  virtual std::vector<Spot> declarationsOf(Spot one) const = 0;
  virtual bool isHeader(const LoweredFile& file) const = 0;
  // Does a file see what another declares, by what it includes?
  virtual bool sees(const LoweredFile& file, const LoweredFile& other) const = 0;
  virtual void include(const LoweredFile& file, const LoweredFile& other, std::vector<FileEdit>& edits) = 0;
  // From the bracket that opens a function's parameters to behind the one that closes them; empty: they could not be found.
  virtual Span parameterList(Spot function) = 0;
  virtual void addMember(Spot type, bool open, const std::string& text, std::vector<FileEdit>& edits) = 0;
  virtual void insertLineBefore(Spot member, const std::string& line, std::vector<FileEdit>& edits) = 0;
};

// Texts and grammar trees of the files that are written in, each read when it is asked for.
class WriterFiles {
 public:
  explicit WriterFiles(std::string root, Surroundings* around = nullptr) : root_(std::move(root)), around_(around) {}
  // Null where no move plans with the whole program.
  Surroundings* around() const { return around_; }

  // Empty when the file cannot be read any more.
  std::string_view text(const LoweredFile& file);
  const SyntaxTree& tree(const LoweredFile& file);

 private:
  struct One {
    std::string text;
    std::unique_ptr<SyntaxTree> tree;
  };
  One& one(const LoweredFile& file);
  std::string root_;
  Surroundings* around_;
  std::map<std::string, One> files_;
};

class Writer {
 public:
  Writer(WriterFiles& files, const HandedIn& handed) : files_(files), handed_(handed) {}
  virtual ~Writer() = default;

  // Why the change cannot be written; empty: it can.
  std::string can(const Change& change);
  // Writes all changes of one step. An answer that is not empty: why that failed after all.
  std::string write(std::span<const Change> changes, std::vector<FileEdit>& edits);

  // What the parameter for an object of that class is called.
  virtual std::string wordFor(std::string_view name) const = 0;
  // What the class calls the field for it.
  virtual std::string fieldFor(const std::string& word) const { return word; }
  // The same in one class.
  virtual std::string fieldOf(const ClassFacts&) const { return fieldFor(handed_.word); }
  // Is that the word with a mark by which files tell fields: _x, m_x, mX, x_?
  static bool isFieldNamed(std::string_view name, std::string_view word);
  // Is the object handed in at this creation already?
  virtual bool hands(Spot creation) = 0;
  // Why the object that a function belongs to cannot be named at this place (`this`, `self`); empty: it can.
  virtual std::string whyNoObject(Spot place) = 0;
  // Is a base of the class that is not in the tree one that makes no objects, so that no library makes any of it?
  virtual bool isInterface(const ClassFacts&, std::string_view) { return false; }
  // Has a class no constructors, and takes what it needs in a field that its makers fill? Then functions take it too.
  virtual bool takesByFields() const { return false; }
  // Can what fetches the object be named where a parameter or field of the same name stands?
  virtual bool namesBeside() const { return takesByFields(); }
  // Is a struct made by constructors, as a class is?
  virtual bool constructsStructs() const { return takesByFields(); }
  // May any function take it by a parameter that may be left out, so that functions are handed it as classes are?
  virtual bool injectsFunctions() const { return false; }
  // May code be written by macros, which name what fetches the object where no call is read?
  virtual bool hasMacros() const { return false; }
  // The class's name where an object of its own is made.
  virtual std::string typeAt(Spot) const { return handed_.type; }
  // May a field refer to one object for good, so that its own object cannot be assigned to?
  virtual bool holdsByReference() const { return false; }
  // Does a derived class keep the object in a field of its own, beside that of its base?
  virtual bool keepsBesideBase() const { return false; }
  // Has a class without constructors those of its base?
  virtual bool inheritsConstructors() const { return false; }
  // May what a field is set to in its declaration name a parameter of the constructor?
  virtual bool firstValuesSeeParameters() const { return false; }
  // Does a constructor that does not name the parameter hand it to its base's all the same, with all it is given by name?
  virtual bool passesAnything(Spot) { return false; }

 protected:
  static constexpr std::string_view kNotWritten = "it is not written yet in this language";
  static constexpr std::string_view kCannotFetch = "how the object is fetched could not be written here";

  // ----- what a language says: why a change cannot be written; empty: it can

  virtual std::string canTake(const Change&) { return std::string(kNotWritten); }
  virtual std::string canGetConstructor(const ClassFacts&) { return std::string(kNotWritten); }
  virtual std::string canTakeInFunction(const Change&) { return std::string(kNotWritten); }
  virtual std::string canKeep(const ClassFacts&) { return ""; }
  virtual std::string canOpen(const Change&) { return "its base class keeps the object for itself alone"; }
  virtual std::string canMove(const Change&) { return std::string(kNotWritten); }
  virtual std::string canRead(const Change&) { return ""; }
  virtual std::string canHandOn(const Change&) { return std::string(kNotWritten); }
  virtual std::string canHandToBase(const Change&) { return std::string(kNotWritten); }
  virtual std::string whyNotDropped(const Change&) { return std::string(kNotWritten); }

  // ----- and how each is written; an answer that is not empty: why that failed after all

  // All changes of the step are of one program; those of one constructor belong together.
  virtual void begin(std::span<const Change>) {}
  // A field that is set in its declaration: its name, what it is set to, and what of the declaration goes, where something
  // else may be needed.
  struct FirstValue {
    std::string name;
    Span value, gone;
    std::string instead = {};
  };
  virtual FirstValue firstValueOf(Spot) { return {}; }
  // The statement that sets a field of that name.
  virtual std::string setting(const std::string&, const std::string&) { return ""; }
  // Sets them in a constructor that takes the object already.
  virtual std::string setIn(Spot, const std::vector<std::string>&) { return ""; }
  // Statements that set fields of the class which were set in their declarations.
  std::vector<std::string> moved(const ClassFacts* c) const { return moved_.contains(c) ? moved_.at(c) : std::vector<std::string>{}; }
  virtual std::string take(const Change&) { return std::string(kNotWritten); }
  virtual std::string makeConstructor(const Change&) { return std::string(kNotWritten); }
  virtual std::string takeInFunction(const Change&) { return std::string(kNotWritten); }
  virtual std::string keep(const Change&) { return ""; }
  virtual std::string open(const Change&) { return std::string(kNotWritten); }
  virtual std::string read(const Change&) = 0;
  virtual std::string handOn(const Change&) = 0;
  virtual std::string handToBase(const Change&) { return std::string(kNotWritten); }
  virtual std::string drop(const Change&) { return std::string(kNotWritten); }
  virtual std::string end(std::span<const Change>) { return ""; }

  // Is a list of parameters or arguments that does not fit on a line gone on with below its first item?
  virtual bool breaksLists() const { return false; }
  // Does the class keep the object by this step?
  bool keepsNow(const ClassFacts* c) const { return kept_.contains(c); }
  // Does the constructor that it gets by this step hand the object to its base's?
  bool handsNew(const ClassFacts* c) const { return handsNew_.contains(c); }
  // How often a function reads it from its parameter in this step.
  size_t readsIn(Spot function) const { return readsIn_.contains(function) ? readsIn_.at(function) : 0; }

  // Does the class, or one of its bases in the tree, declare a method of that name?
  static bool declares(const ClassFacts& c, std::string_view method);
  // What code calls an object that goes by that name: without the marks that it begins with.
  static std::string objectWord(std::string_view name, bool snake);
  // A field for the word, marked as most fields of objects are that the file declares.
  std::string fieldNamed(const LoweredFile& file, const std::string& word);
  // The class's qualified name with that between its parts.
  std::string qualifiedBy(char sign) const;
  // ----- reading
  const SyntaxTree& tree(Spot spot) { return files_.tree(*spot.file); }
  std::string_view text(const LoweredFile& file) { return files_.text(file); }
  std::string textOf(Spot spot);
  // Is what stands there an access of the object, and nothing else?
  bool isFetched(Spot place, TSNode node);
  // Has what stands there its place to itself: is it a whole argument, result or value?
  bool standsAlone(Spot place);
  // The access, and what else in its function is written like it and was left out as the other half of a pair: lock and unlock.
  std::vector<Span> spansOf(const Change& read);
  // The text of a span with some of the changes made in it.
  template <typename Write>
  std::string changedInside(const LoweredFile& file, Span span, Write write) {
    std::vector<FileEdit> inner;
    std::vector<FileEdit>* outer = std::exchange(out_, &inner);
    write();
    out_ = outer;
    std::erase_if(inner, [&](const FileEdit& edit) { return edit.path != file.path || edit.span.begin < span.begin || edit.span.begin > span.end; });
    for (FileEdit& edit : inner) edit.span = {edit.span.begin - span.begin, edit.span.end - span.begin};
    Result<std::string> changed = applyEdits(text(file).substr(span.begin, span.size()), inner);
    return changed ? *changed : std::string();
  }
  // What fetches the object in a file; what it needs for that is put in. Empty: that cannot be written.
  std::string fetchIn(const LoweredFile& file);
  // The same where an access stands today.
  std::string fetchAt(Spot access) { return handed_.made.empty() ? textOf(access) : fetchIn(*access.file); }
  // The class's name as a file may write it; what it needs for that is put in.
  virtual std::string nameIn(const LoweredFile&) { return handed_.type; }
  // The same where no access stands in the file: as it is written elsewhere, behind its class's name.
  virtual std::string fetchElsewhere(const LoweredFile& file);
  std::string_view newlineOf(const LoweredFile& file);
  std::string indentAt(const LoweredFile& file, uint32_t offset);
  uint32_t lineBegin(const LoweredFile& file, uint32_t offset);
  // The span with its lines' indentation and end, where nothing else stands on them.
  Span wholeLines(const LoweredFile& file, Span span);
  // Behind a remark that ends the line, where nothing else stands on the rest of it.
  uint32_t behindRemark(const LoweredFile& file, uint32_t offset);
  // A line end, where what stands on the next line follows without a blank one.
  std::string gapBehind(const LoweredFile& file, uint32_t offset);
  // By how much a block is deeper than what it belongs to.
  std::string unitOf(const LoweredFile& file);
  // Does a part of a class's head, of that type, name a base?
  bool headNames(const ClassFacts& c, TSNode type, std::string_view part, std::string_view base);
  // The text with line ends and indentation of the file: \n begins a line at `indent`, \t is one unit.
  std::string laidOut(const LoweredFile& file, std::string_view pattern, const std::string& indent);

  // Names it in that list of names too, where the class beside it is named. False: that stands in no list.
  bool nameBeside(const LoweredFile& file, std::initializer_list<std::string_view> imports, std::initializer_list<std::string_view> lists);

  // ----- writing
  // Nothing is put where a change is only asked about.
  void put(const LoweredFile& file, Span span, std::string text) {
    if (out_) out_->push_back({file.path, span, std::move(text)});
  }
  // Is this put into the file for the first time in the step?
  bool once(const LoweredFile& file, std::string_view what) { return out_ && once_.emplace(file.path, what).second; }
  void insert(const LoweredFile& file, uint32_t offset, std::string text) { put(file, {offset, offset}, std::move(text)); }
  // Puts an item behind the last of a list in brackets, in the manner of the list. `before`: in front of that item instead.
  void append(const LoweredFile& file, TSNode list, const std::string& item, TSNode before = {});
  // The same of items that are followed by a bracket at `close`.
  void append(const LoweredFile& file, const std::vector<Span>& items, uint32_t close, const std::string& item);
  // Puts a line among others in the order of the alphabet; not when it is there. False: there are no others.
  bool putSorted(const LoweredFile& file, const std::vector<TSNode>& lines, const std::string& line);
  // Says another word for one that stands in a declaration in front of its name. False: it does not.
  bool reword(const LoweredFile& file, TSNode declaration, uint32_t name, std::string_view word, std::string_view other);
  // A line more behind the last that begins so in a comment; nothing when none does.
  void documentBehind(const LoweredFile& file, TSNode comment, std::string_view last, const std::string& line);

  WriterFiles& files_;
  const HandedIn& handed_;
  std::vector<FileEdit>* out_ = nullptr;
  std::set<std::pair<std::string, uint32_t>> written_;  // accesses by file and place
  std::string pending_;  // a field that stands in front of the constructor which is made in the same step

 private:
  std::string writeOne(const Change& change);
  void move(const Change& change, std::span<const Change> changes);
  bool isMoved(Spot place) const;

  std::map<std::string, std::string> marks_;  // of fields, by file
  std::set<std::pair<std::string, std::string>> once_;
  std::set<const ClassFacts*> kept_, handsNew_;
  std::map<Spot, size_t> readsIn_;
  std::map<const ClassFacts*, std::vector<std::string>> moved_;
  std::vector<std::pair<Spot, Span>> movedSpans_;  // fields, and what they are set to
};

}  // namespace elmcart
