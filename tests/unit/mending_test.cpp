// The moves guard and tether on small programs in each language: what is written
// is compared with texts that were read and found right, and nothing else changes.
// ELMCART_WRITE=1 writes the expected texts anew, to be read again.
#include <gtest/gtest.h>

#include <cstdlib>
#include <map>

#include "base/text.h"
#include "rework/moves.h"
#include "rework/rework.h"
#include "source/walk.h"
#include "support/changes.h"
#include "support/folder.h"

namespace elmcart {
namespace {

// The files after all steps that the move plans for the first entity that it does not refuse.
Texts mended(const std::string& move, const Texts& texts, ReworkResult* result = nullptr) {
  Folder folder;
  for (auto& [name, text] : texts) folder.write(name, text);
  auto config = findConfig(folder.path());
  auto first = analyse(folder.path(), *config, 1, false);
  EXPECT_TRUE(first.ok());
  // The first piece of shared state that it can be made for, or every class and function.
  std::vector<std::pair<MoveTarget, std::string>> ids;
  const Program& p = (*first)->program;
  for (const Move& one : moves()) {
    if (one.id != move) continue;
    if (one.of == MoveTarget::Class)
      for (TypeIndex t = 0; t < p.types.size(); ++t)
        if (p.types[t].definition.known() && refusalOf(one, **first, t).empty()) ids.emplace_back(one.of, p.text(p.types[t].qualified));
    if (one.of == MoveTarget::Function)
      for (FunctionIndex f = 0; f < p.functions.size(); ++f)
        if (p.functions[f].definition.known() && refusalOf(one, **first, f).empty()) ids.emplace_back(one.of, functionText(p, f));
    if (one.of == MoveTarget::State)
      for (size_t i = 0; i < (*first)->survey.entities.size() && ids.empty(); ++i)
        if (!(*first)->survey.entities[i].harmless && refusalOf(one, **first, i).empty()) ids.emplace_back(one.of, (*first)->survey.entities[i].id);
  }
  EXPECT_FALSE(ids.empty());
  Texts out = texts;
  ReworkOptions options;
  options.move = move;
  options.confirm = false;
  options.retire = true;
  for (auto& [of, id] : ids) {
    options.of = of;
    auto done = rework(folder.path(), *config, id, options);
    EXPECT_TRUE(done.ok()) << (done.ok() ? "" : done.error().line());
    if (!done) return out;
    for (const WriteBackFile& file : done->files) {
      out[file.path] = file.after;
      folder.write(file.path, file.after);
    }
    if (result) *result = *done;
  }
  return out;
}

std::string withCarriageReturns(const std::string& text) {
  std::string out;
  for (char c : text) out += c == '\n' ? std::string("\r\n") : std::string(1, c);
  return out;
}

std::vector<std::string> cases() {
  std::vector<std::string> out;
  for (const char* move : {"broadcast", "extract-interface", "synchronize", "inject-parameter", "inject", "own", "enforce", "make-local", "safe-init", "inject-collaborator", "unregister", "wrap"})
    for (const auto& language : fs::directory_iterator(std::string(ELMCART_REWORK) + "/mending/" + move)) out.push_back(std::string(move) + "/" + language.path().filename().string());
  std::sort(out.begin(), out.end());
  return out;
}

class Mending : public testing::TestWithParam<std::string> {
 protected:
  std::string move() const { return GetParam().substr(0, GetParam().find('/')); }
  Texts before() const { return textsOf(std::string(ELMCART_REWORK) + "/mending/" + GetParam()); }
};

TEST_P(Mending, WritesWhatWasReviewed) {
  ReworkResult result;
  Texts found = mended(move(), before(), &result);
  EXPECT_TRUE(result.finished);
  EXPECT_TRUE(result.byHand.empty()) << result.byHand.front().reason;
  std::string path = std::string(ELMCART_REWORK) + "/mending/expected/" + GetParam() + ".diff", changes = changesBetween(before(), found);
  if (std::getenv("ELMCART_WRITE")) {
    fs::create_directories(fs::path(path).parent_path());
    std::ofstream(path, std::ios::binary) << changes;
  }
  auto expected = readWhole(path);
  ASSERT_TRUE(expected.ok()) << path;
  EXPECT_EQ(changes, *expected);
}

// What the moves mend is not reported any more, and nothing new is.
TEST_P(Mending, LeavesNothingOfItBehind) {
  ReworkResult result;
  mended(move(), before(), &result);
  // Where the object is fetched by default the accessor is still reached.
  if (move() != "inject" && move() != "inject-parameter" && move() != "extract-interface" && move() != "make-local" && move() != "wrap" && move() != "broadcast" && move() != "own") {
    EXPECT_FALSE(result.findingsGone.empty());
  }
  EXPECT_TRUE(result.findingsCome.empty()) << result.findingsCome.front();
}

TEST_P(Mending, KeepsLineEndsAndAMissingLastOne) {
  Texts plain = before(), windows = plain, open = plain;
  for (auto& [name, text] : windows) text = withCarriageReturns(text);
  for (auto& [name, text] : open) text.pop_back();
  Texts expected = mended(move(), plain), found = mended(move(), windows), cut = mended(move(), open);
  for (auto& [name, text] : expected) {
    EXPECT_EQ(found[name], withCarriageReturns(text)) << name;
    EXPECT_EQ(cut[name], plain.count(name) ? text.substr(0, text.size() - 1) : text) << name;
  }
}

INSTANTIATE_TEST_SUITE_P(All, Mending, testing::ValuesIn(cases()), [](const auto& info) {
  std::string name = info.param;
  for (char& c : name) if (!isWordByte(c)) c = '_';
  return name;
});

// What a move must not guess it leaves, with the reason.
struct Left {
  const char* name;
  const char* move;
  const char* file;
  const char* text;
  const char* entity;
  const char* reason;
  size_t steps = 0;  // that are made all the same
};

class MendingByHand : public testing::TestWithParam<Left> {};

TEST_P(MendingByHand, SaysWhy) {
  const Left& left = GetParam();
  Folder folder;
  folder.write(left.file, left.text);
  auto config = findConfig(folder.path());
  ReworkOptions options;
  options.move = left.move;
  options.confirm = false;
  options.retire = true;
  auto done = rework(folder.path(), *config, left.entity, options);
  std::string said = done.ok() ? "" : done.error().line();
  if (done.ok()) {
    EXPECT_EQ(done->steps.size(), left.steps);
    for (const ByHand& hand : done->byHand) said += hand.reason + "\n";
    for (const ByHand& place : done->left) said += place.reason + "\n";
  }
  EXPECT_NE(said.find(left.reason), std::string::npos) << said;
}

constexpr const char* kMast = "#include <vector>\nclass Keeper;\nclass Mast {\n public:\n  static Mast& mast() {\n    static Mast m;\n    return m;\n  }\n  void attach(Keeper* keeper) { keepers_.push_back(keeper); }\n private:\n  std::vector<Keeper*> keepers_;\n};\n";

INSTANTIATE_TEST_SUITE_P(
    All, MendingByHand,
    testing::Values(
        Left{"no_threads", "synchronize", "a.js", "class Scale {\n  static one = new Scale();\n  static get() { return Scale.one; }\n  weigh() { this.loads = 1; }\n}\n", "a.Scale", "no two threads share memory"},
        Left{"a_member_that_waits", "synchronize", "a.cs", "using System.Threading.Tasks;\nsealed class Scale\n{\n    static readonly Scale scale = new Scale();\n    int loads;\n    Scale() { }\n    public static Scale Get() { return scale; }\n    public async Task Weigh()\n    {\n        await Task.Delay(1);\n        loads = loads + 1;\n    }\n}\nclass Quay { void Unload() { Task.Run(() => Scale.Get().Weigh()); Scale.Get().Weigh(); } }\n", "Scale", "a lock must not be held then"},
        Left{"members_that_call_each_other", "synchronize", "a.go", "package a\n\ntype scale struct{ loads int }\n\nvar theScale = &scale{}\n\nfunc (s *scale) Weigh() {\n\ts.loads = s.loads + 1\n}\n\nfunc (s *scale) Twice() {\n\ts.loads = 0\n\ts.Weigh()\n}\n\nfunc Unload() {\n\tgo theScale.Twice()\n\ttheScale.Weigh()\n}\n", "a.theScale", "its members call each other"},
        Left{"changes_from_outside", "synchronize", "a.py", "import threading\n\n\nclass Scale:\n    def __init__(self):\n        self.loads = 0\n\n    def weigh(self):\n        self.loads = self.loads + 1\n\n\nscale = Scale()\n\n\ndef reset():\n    scale.loads = 0\n\n\nthreading.Thread(target=scale.weigh).start()\nthreading.Thread(target=reset).start()\n", "a.scale", "from outside: give it a member to call"},
        Left{"all_take_themselves_out", "unregister", "a.cpp", "int main() {}\nstruct Mast { int flags = 0; };\nMast mast;\n", "mast", "takes itself out again"},
        Left{"a_constant_of_an_enum", "make-local", "A.kt", "enum class Flag(var shown: Boolean) {\n    NORTH(false),\n    SOUTH(false);\n\n    fun show() {\n        shown = true\n    }\n}\nclass Mast {\n    fun hoist() {\n        Flag.NORTH.show()\n    }\n}\n", "Flag.NORTH", "it is a constant of an enum"},
        Left{"a_method_of_a_class_elsewhere", "inject-parameter", "a.go", "package desk\n\nimport \"sync\"\n\ntype Book struct{ berths int }\n\nvar (\n\tbook *Book\n\tonce sync.Once\n)\n\nfunc TheBook() *Book {\n\tonce.Do(func() { book = &Book{} })\n\treturn book\n}\n\nfunc (b *Book) Count() int { b.berths++; return b.berths }\n\nfunc (d *Desk) All() int { return TheBook().Count() }\n", "desk.book", "no function that belongs to no object reaches it"},
        Left{"made_as_a_part", "inject-collaborator", "a.cpp", "#include <fstream>\nstruct Log { void note() { std::ofstream out(\"log\"); } };\nstruct Desk {\n  Desk() : log() {}\n  void put() { log.note(); }\n  Log log;\n};\n", "Desk", "keep it through a pointer first"},
        Left{"made_of_the_object", "inject-collaborator", "A.java", "import java.io.*;\nclass Log {\n    Log(Desk desk) { }\n    void note() throws IOException { new FileWriter(\"log\").close(); }\n}\nclass Desk {\n    private final Log log;\n    Desk() { log = new Log(this); }\n    void put() throws IOException { log.note(); }\n}\n", "Desk", "belongs to the object"},
        Left{"made_after_other_work", "inject-collaborator", "A.java", "import java.io.*;\nclass Log {\n    void note() throws IOException { new FileWriter(\"log\").close(); }\n}\nclass Desk {\n    private final Log log;\n    static void open() { }\n    Desk() { open(); log = new Log(); }\n    void put() throws IOException { log.note(); }\n}\n", "Desk", "other work is done before"},
        Left{"no_constructor_to_take_it", "inject-collaborator", "a.js", "const fs = require('fs');\nclass Log {\n  note() { fs.readFileSync('log'); }\n}\nclass Desk {\n  log = new Log();\n  note() { this.log.note(); }\n}\n", "a.Desk", "the class has no constructor"},
        Left{"fields_given_by_position", "inject", "a.go", "package desk\n\nimport \"sync\"\n\ntype Book struct{ berths int }\n\nvar (\n\tbook *Book\n\tonce sync.Once\n)\n\nfunc TheBook() *Book {\n\tonce.Do(func() { book = &Book{} })\n\treturn book\n}\n\nfunc (b *Book) Count() int { b.berths++; return b.berths }\n\ntype Arrivals struct {\n\tseen int\n}\n\nfunc (a *Arrivals) All() int { return TheBook().Count() + a.seen }\n\nfunc early() *Arrivals { return &Arrivals{3} }\n", "desk.book", "given in their order, not by name", 1},
        Left{"made_in_mid_statement", "inject", "a.m", "#import <Foundation/Foundation.h>\n@interface HOBook : NSObject { int berths; }\n+ (HOBook *)shared;\n- (int)count;\n@end\n@implementation HOBook\n+ (HOBook *)shared {\n  static HOBook *book = nil;\n  static dispatch_once_t once;\n  dispatch_once(&once, ^{ book = [[HOBook alloc] init]; });\n  return book;\n}\n- (int)count { berths++; return berths; }\n@end\n@interface HODesk : NSObject\n- (int)all;\n@end\n@implementation HODesk\n- (int)all { return [[HOBook shared] count]; }\n@end\nint main(void) { return [[[HODesk alloc] init] all]; }\n", "HOBook", "made in the middle of a statement", 1},
        Left{"demanded_by_a_protocol", "inject-collaborator", "A.swift", "import Foundation\nfinal class Log {\n    func read() -> String { return (try? String(contentsOfFile: \"log\")) ?? \"\" }\n}\nprotocol Made { init(port: String) }\nfinal class Desk: Made {\n    private let log: Log\n    required init(port: String) {\n        self.log = Log()\n    }\n    func size() -> Int { return log.read().count }\n}\n", "Desk", "whose parameters are not its own choice"},
        Left{"nothing_optional_in_go", "inject-collaborator", "a.go", "package desk\n\nimport \"os\"\n\ntype log struct{ path string }\n\nfunc (l *log) note() { os.Open(l.path) }\n\ntype Desk struct{ kept *log }\n\nfunc NewDesk() *Desk { return &Desk{kept: &log{}} }\n", "desk.Desk", "in Go: a parameter that may be left out cannot be written"},
        Left{"a_function_is_listed", "unregister", "A.java", "import java.util.*;\nfinal class Mast {\n    private static final Mast MAST = new Mast();\n    private final List<Runnable> rounds = new ArrayList<>();\n    private Mast() { }\n    static Mast mast() { return MAST; }\n    void attach(Runnable round) { rounds.add(round); }\n    void detach(Runnable round) { rounds.remove(round); }\n}\nclass Pilot {\n    int last;\n    Pilot() { Mast.mast().attach(() -> last = 1); }\n    void close() { last = 0; }\n}\n", "Mast", "a function is listed"},
        Left{"nothing_tells_its_end", "unregister", "A.java", "import java.util.*;\nfinal class Mast {\n    private static final Mast MAST = new Mast();\n    private final List<Pilot> pilots = new ArrayList<>();\n    private Mast() { }\n    static Mast mast() { return MAST; }\n    void attach(Pilot pilot) { pilots.add(pilot); }\n    void detach(Pilot pilot) { pilots.remove(pilot); }\n}\nclass Pilot {\n    int last;\n    Pilot() { Mast.mast().attach(this); }\n    void sail() { last = 0; }\n}\n", "Mast", "nothing tells Pilot its end"}),
    [](const auto& info) { return std::string(info.param.name); });

TEST(MendingCopies, AreDecidedByHand) {
  Folder folder;
  folder.write("a.cpp", std::string(kMast) + "class Keeper {\n public:\n  Keeper() { Mast::mast().attach(this); }\n};\nint main() {\n  Keeper one;\n  Keeper two = one;\n}\n");
  auto config = findConfig(folder.path());
  ReworkOptions options;
  options.move = "unregister";
  options.confirm = false;
  options.retire = true;
  auto done = rework(folder.path(), *config, "Mast", options);
  ASSERT_TRUE(done.ok()) << done.error().line();
  ASSERT_EQ(done->byHand.size(), 1u);
  EXPECT_NE(done->byHand[0].reason.find("a copy is not listed"), std::string::npos) << done->byHand[0].reason;
}

}  // namespace
}  // namespace elmcart
