// Inject in languages of references, without building anything: what is written,
// and that nothing else is.
#include <gtest/gtest.h>

#include <map>
#include <set>

#include "base/text.h"
#include "rework/moves.h"
#include "rework/rework.h"
#include "source/walk.h"
#include "support/changes.h"
#include "support/folder.h"

namespace elmcart {
namespace {


Texts textsIn(const std::string& folder) {
  Texts out;
  for (const auto& entry : fs::recursive_directory_iterator(folder))
    if (entry.is_regular_file()) out[fs::relative(entry.path(), folder).string()] = *readWhole(entry.path().string());
  return out;
}

// The tree after the planned steps, in which every file went through `change` first.
Texts reworked(const std::string& language, const std::function<std::string(const std::string& path, std::string text)>& change, ReworkResult* result = nullptr) {
  Folder folder;
  Texts out;
  for (auto& [path, text] : textsIn(std::string(ELMCART_REWORK) + "/" + language)) {
    out[path] = fs::path(path).extension() == ".toml" ? text : change(path, text);
    folder.write(path, out[path]);
  }
  auto config = findConfig(folder.path());
  EXPECT_TRUE(config.ok());
  auto first = analyse(folder.path(), *config, 1, false);
  EXPECT_TRUE(first.ok());
  std::string id;
  for (const Entity& e : (*first)->survey.entities)
    if (e.name.substr(0, 9) == "TideTable") id = e.id;
  ReworkOptions options;
  options.confirm = false;
  options.retire = true;
  auto done = rework(folder.path(), *config, id, options);
  EXPECT_TRUE(done.ok()) << (done.ok() ? "" : done.error().line());
  if (!done) return out;
  EXPECT_TRUE(done->byHand.empty()) << done->byHand.front().reason;
  for (const WriteBackFile& file : done->files) out[file.path] = file.after;
  if (result) *result = *done;
  return out;
}

std::string same(const std::string&, std::string text) { return text; }

std::string withCarriageReturns(const std::string&, std::string text) {
  std::string out;
  for (char c : text) out += c == '\n' ? std::string("\r\n") : std::string(1, c);
  return out;
}

class HandOverIn : public testing::TestWithParam<const char*> {};

TEST_P(HandOverIn, SeamsLiftsAndEnds) {
  ReworkResult result;
  reworked(GetParam(), same, &result);
  EXPECT_TRUE(result.finished);
  std::map<StepKind, size_t> kinds;
  for (const StepRecord& step : result.steps) kinds[step.step.kind] += step.kept;
  EXPECT_GE(kinds[StepKind::Seam], 2u);
  EXPECT_GE(kinds[StepKind::Lift], 1u);
}

// Line ends, blanks at line ends, a missing last line end and a byte order mark stay as they are.
TEST_P(HandOverIn, KeepsTheBytesItDoesNotMeanToChange) {
  Texts plain = reworked(GetParam(), same);
  Texts windows = reworked(GetParam(), withCarriageReturns);
  for (auto& [path, text] : plain) {
    if (fs::path(path).extension() != ".toml") {
      EXPECT_EQ(windows[path], withCarriageReturns(path, text)) << path;
    }
  }
  Texts open = reworked(GetParam(), [](const std::string&, std::string text) {
    while (!text.empty() && text.back() == '\n') text.pop_back();
    return text;
  });
  for (auto& [path, text] : plain) {
    if (fs::path(path).extension() != ".toml") {
      EXPECT_EQ(open[path], text.substr(0, text.find_last_not_of('\n') + 1)) << path;
    }
  }
  Texts marked = reworked(GetParam(), [](const std::string&, std::string text) { return "\xEF\xBB\xBF" + text; });
  for (auto& [path, text] : plain) {
    if (fs::path(path).extension() != ".toml") {
      EXPECT_EQ(marked[path], "\xEF\xBB\xBF" + text) << path;
    }
  }
}

// Where the sample stands on four blanks, it may stand on tabs.
TEST_P(HandOverIn, IndentsAsTheFileDoes) {
  bool two = std::string(GetParam()) == "javascript" || std::string(GetParam()) == "typescript" || std::string(GetParam()) == "dart";
  auto tabs = [&](const std::string&, std::string text) {
    std::string out, unit(two ? 2 : 4, ' ');
    for (const std::string& line : splitLines(text)) {
      size_t at = 0;
      while (line.compare(at, unit.size(), unit) == 0) out += '\t', at += unit.size();
      out += line.substr(at) + "\n";
    }
    return out;
  };
  Texts plain = reworked(GetParam(), same), tabbed = reworked(GetParam(), tabs);
  for (auto& [path, text] : plain) {
    if (fs::path(path).extension() != ".toml") {
      EXPECT_EQ(tabbed[path], tabs(path, text)) << path;
    }
  }
}

INSTANTIATE_TEST_SUITE_P(All, HandOverIn, testing::Values("java", "csharp", "kotlin", "python", "javascript", "typescript", "php", "swift", "dart"), [](const auto& info) { return std::string(info.param); });

// No compiler at hand: the result is compared with a text that was read and found right.
class HandOverText : public testing::TestWithParam<const char*> {};

TEST_P(HandOverText, IsAsReviewed) {
  Texts expected = textsIn(std::string(ELMCART_REWORK) + "/expected/" + GetParam());
  ASSERT_FALSE(expected.empty());
  Texts found = reworked(GetParam(), same);
  for (auto& [path, text] : expected) EXPECT_EQ(found[path], text) << path;
}

INSTANTIATE_TEST_SUITE_P(All, HandOverText, testing::Values("kotlin", "swift", "dart"), [](const auto& info) { return std::string(info.param); });

// A plan for one file; its text afterwards, and what stays by hand.
std::pair<std::string, std::vector<ByHand>> planned(const std::string& name, const std::string& text, const std::string& entity) {
  Folder folder;
  folder.write(name, text);
  auto config = findConfig(folder.path());
  ReworkOptions options;
  options.confirm = false;
  options.retire = true;
  auto done = rework(folder.path(), *config, entity, options);
  EXPECT_TRUE(done.ok()) << (done.ok() ? "" : done.error().line());
  if (!done) return {};
  return {done->files.empty() ? text : done->files.front().after, done->byHand};
}

TEST(HandOver, AConstructorThatHandsOnHandsTheObjectOnToo) {
  std::string mast = "sealed class Mast { private static readonly Mast mast = new Mast(); private int flags; private Mast() { } public static Mast Get() { return mast; } public void Raise() { flags++; } }\n";
  auto [text, hand] = planned("a.cs", mast + "class Pilot\n{\n    public Pilot() : this(\"Wren\") { }\n    public Pilot(string name)\n    {\n    }\n    public void Sail() { Mast.Get().Raise(); }\n}\n", "Mast");
  EXPECT_NE(text.find("public Pilot() : this(\"Wren\") { }\n    public Pilot(string name) : this(name, Mast.Get())\n    {\n    }\n"), std::string::npos) << text;
  EXPECT_NE(text.find("    internal Pilot(string name, Mast mast)\n    {\n        this.mast = mast;\n    }"), std::string::npos) << text;
  EXPECT_TRUE(hand.empty());
}

// A constructor that fetches the object only for those who hand nothing in takes it already.
TEST(HandOver, WhatIsTakenAlreadyStays) {
  std::string scale = "class Scale:\n    def __init__(self):\n        self.loads = 0\n\n    def weigh(self):\n        self.loads = self.loads + 1\n\n\nscale = Scale()\n\n\n";
  std::string before = scale + "class Truck:\n    def __init__(self, meter=None):\n        if meter is None:\n            self.meter = scale\n        else:\n            self.meter = meter\n\n\nclass Crane:\n    def __init__(self, meter=None):\n        self.meter = meter or scale\n";
  auto [text, hand] = planned("a.py", before, "a.scale");
  EXPECT_EQ(text, before);
  EXPECT_TRUE(hand.empty()) << hand[0].reason;
  // A flag that chooses is another thing.
  auto [chosen, none] = planned("a.py", scale + "class Truck:\n    def __init__(self, heavy=None):\n        self.heavy = heavy and scale\n", "a.scale");
  EXPECT_NE(chosen.find("heavy=None, shared_scale=None"), std::string::npos) << chosen;
}

// What the base's constructor is handed must be there before it is called, and its call may go over lines.
TEST(HandOver, TheBaseIsHandedWhatTheClassWasHanded) {
  std::string scale = "class Scale:\n    def __init__(self):\n        self.loads = 0\n\n    def weigh(self):\n        self.loads = self.loads + 1\n\n\nscale = Scale()\n\n\nclass Truck:\n    def __init__(self, meter):\n        self.meter = meter\n\n\n";
  auto [handed, none] = planned("a.py", scale + "class Crane(Truck):\n    def __init__(self):\n        super().__init__(\n            scale\n        )\n        self.high = 1\n", "a.scale");
  EXPECT_NE(handed.find("    def __init__(self, shared_scale=None):\n        super().__init__(\n            scale if shared_scale is None else shared_scale\n        )\n        self.high = 1\n"), std::string::npos) << handed;
  auto [after, nothing] = planned("a.py", scale + "class Crane(Truck):\n    def __init__(self):\n        super().__init__(\n            None\n        )\n        self.high = 1\n\n    def lift(self):\n        scale.weigh()\n", "a.scale");
  EXPECT_NE(after.find("            None\n        )\n        self._shared_scale = scale if"), std::string::npos) << after;
  auto [sharp, left] = planned("a.cs", "class Mast\n{\n    static readonly Mast mast = new Mast();\n    int flags;\n    Mast() { }\n    public static Mast Get() { return mast; }\n    public void Raise() { flags++; }\n}\nclass Truck\n{\n    public Truck(Mast mast)\n    {\n    }\n}\nclass Crane : Truck\n{\n    public Crane() : base(Mast.Get())\n    {\n    }\n}\n", "Mast");
  EXPECT_NE(sharp.find(": base(mast)"), std::string::npos) << sharp;
}

// The accessor goes where one function alone still fetches the object, not where two would make two.
TEST(HandOver, TheAccessorGoesWithItsLastUser) {
  std::string mast = "final class Mast {\n    private static final Mast MAST = new Mast();\n    private int flags;\n    private Mast() {\n    }\n    static Mast mast() {\n        return MAST;\n    }\n    void raise() {\n        flags++;\n    }\n}\n"
                     "class Pilot {\n    void sail() {\n        Mast.mast().raise();\n    }\n}\n";
  auto [gone, none] = planned("A.java", mast + "class Main {\n    public static void main(String[] arguments) {\n        new Pilot().sail();\n    }\n}\n", "Mast");
  EXPECT_EQ(gone.find("MAST"), std::string::npos) << gone;
  EXPECT_NE(gone.find("        Mast mast = new Mast();\n        new Pilot(mast).sail();\n"), std::string::npos) << gone;
  auto [kept, nothing] = planned("A.java", mast + "class Main {\n    public static void main(String[] arguments) {\n        new Pilot().sail();\n        late();\n    }\n    static void late() {\n        new Pilot().sail();\n    }\n}\n", "Mast");
  EXPECT_NE(kept.find("return MAST;"), std::string::npos) << kept;
  EXPECT_EQ(kept.find("new Pilot()"), std::string::npos) << kept;
  // In a loop, or in a function that may be called again, it would be made more than once.
  auto [called, others] = planned("A.java", mast + "class Yard {\n    static void open() {\n        new Pilot().sail();\n    }\n}\n", "Mast");
  EXPECT_NE(called.find("return MAST;"), std::string::npos) << called;
  auto [again, left] = planned("A.java", mast + "class Main {\n    public static void main(String[] arguments) {\n        for (int i = 0; i < 2; i++) {\n            new Pilot().sail();\n        }\n    }\n}\n", "Mast");
  EXPECT_NE(again.find("return MAST;"), std::string::npos) << again;
}

// A comment may stand in front of what hands on, and a constructor that fetches nothing is not ours to take.
TEST(HandOver, ReadsPastCommentsInConstructors) {
  std::string mast = "final class Mast {\n    private static final Mast MAST = new Mast();\n    private int flags;\n    private Mast() {\n    }\n    static Mast mast() {\n        return MAST;\n    }\n    void raise() {\n        flags++;\n    }\n}\n";
  auto [java, none] = planned("A.java", mast + "class Ship {\n    Ship(String name) {\n    }\n}\nclass Main {\n    public static void main(String[] arguments) {\n        new Pilot().sail();\n    }\n}\nclass Pilot extends Ship {\n    Pilot() {\n        // the first of them\n        this(\"Wren\");\n    }\n    Pilot(String name) {\n        /* as ships do */\n        super(name);\n    }\n    void sail() {\n        Mast.mast().raise();\n    }\n}\n", "Mast");
  EXPECT_NE(java.find("        super(name);\n        this.mast = mast;\n"), std::string::npos) << java;
  EXPECT_NE(java.find("        this(\"Wren\", mast);"), std::string::npos) << java;
  auto [kept, nothing] = planned("B.java", mast + "class Yard {\n    Yard() {\n    }\n    Yard(Mast mast) {\n        mast.raise();\n    }\n}\nclass Main {\n    public static void main(String[] arguments) {\n        new Yard(Mast.mast());\n    }\n}\n", "Mast");
  EXPECT_NE(kept.find("    Yard() {\n    }\n"), std::string::npos) << kept;
}

// A struct that is there as a value has an empty field: the default stays.
TEST(FieldSeam, TheDefaultStaysWhereObjectsAreThereWithoutBeingMade) {
  std::string book = "package desk\n\nimport \"sync\"\n\ntype Book struct{ berths int }\n\nvar (\n\tbook *Book\n\tonce sync.Once\n)\n\nfunc TheBook() *Book {\n\tonce.Do(func() { book = &Book{} })\n\treturn book\n}\n\nfunc (b *Book) Count() int { b.berths++; return b.berths }\n\n"
                     "type Arrivals struct {\n\tseen int\n}\n\nfunc (a *Arrivals) All() int { return TheBook().Count() + a.seen }\n\nfunc one() *Arrivals { return &Arrivals{seen: 1} }\n";
  auto [closed, none] = planned("a.go", book, "desk.book");
  EXPECT_EQ(closed.find("theBook"), std::string::npos) << closed;
  EXPECT_NE(closed.find("&Arrivals{seen: 1, book: TheBook()}"), std::string::npos) << closed;
  for (const char* value : {"\nvar late Arrivals\n", "\ntype Desk struct {\n\tarrivals Arrivals\n}\n", "\nfunc many() []Arrivals { return make([]Arrivals, 3) }\n"}) {
    auto [open, nothing] = planned("a.go", book + value, "desk.book");
    EXPECT_NE(open.find("return a.book"), std::string::npos) << open;
  }
}

TEST(HandOver, WhatItCannotWriteStaysByHand) {
  auto [kotlin, hand] = planned("b.kt", "object Scale {\n    var weighed = 0\n    fun weigh() { weighed++ }\n}\nclass Truck {\n    private val name: String\n    constructor(name: String) { this.name = name }\n    fun load() { Scale.weigh() }\n}\n", "Scale");
  ASSERT_EQ(hand.size(), 1u);
  EXPECT_NE(hand[0].reason.find("only others"), std::string::npos) << hand[0].reason;
  EXPECT_NE(kotlin.find("Scale.weigh()"), std::string::npos);
  auto [java, marked] = planned("C.java", "final class Mast {\n    private static final Mast MAST = new Mast();\n    private int flags;\n    private Mast() {\n    }\n    static Mast mast() {\n        return MAST;\n    }\n    void raise() {\n        flags++;\n    }\n}\n@Bean\nclass Pilot {\n    void sail() {\n        Mast.mast().raise();\n    }\n}\n", "Mast");
  ASSERT_EQ(marked.size(), 1u);
  EXPECT_NE(marked[0].reason.find("is marked Bean"), std::string::npos) << marked[0].reason;
  auto [script, rebinds] = planned("d.js", "class Mast {\n  static one = null;\n  static get() {\n    if (Mast.one === null) Mast.one = new Mast();\n    return Mast.one;\n  }\n  raise() { this.flags = 1; }\n}\nclass Pilot {\n  sail(rounds) {\n    rounds.push(function () { Mast.get().raise(); });\n  }\n}\n", "d.Mast");
  ASSERT_EQ(rebinds.size(), 1u);
  EXPECT_NE(rebinds[0].reason.find("`this` is another object"), std::string::npos) << rebinds[0].reason;
}

// docs/moves-by-language.md says which move can be written in which language;
// ELMCART_WRITE=1 writes it anew.
TEST(MovesTogether, AreListedInTheDocumentation) {
  std::string table = "# Moves and languages\n\nA dash: the move cannot be made in that language, for the reason given below.\n\n| move |";
  std::vector<const Language*> columns;
  for (const Language& language : languages())
    if (columns.empty() || columns.back()->name != language.name) columns.push_back(&language);
  for (const Language* language : columns) table += " " + std::string(language->name) + " |";
  table += "\n|---|";
  for (size_t i = 0; i < columns.size(); ++i) table += "---|";
  table += "\n";
  std::map<std::string, std::vector<std::string>> reasons;
  std::set<std::string_view> listed;  // a move for classes and functions is one
  for (const Move& move : moves()) {
    if (!listed.insert(move.id).second) continue;
    table += "| " + std::string(move.id) + " |";
    for (const Language* language : columns) {
      std::string reason = move.notIn(*language);
      table += reason.empty() ? " yes |" : " – |";
      if (!reason.empty()) reasons[std::string(move.id) + ": " + reason].emplace_back(language->name);
    }
    table += "\n";
  }
  table += "\n";
  for (auto& [reason, names] : reasons) table += "- " + reason.substr(0, reason.find(':')) + ": " + joinWith(names, ", ") + ":" + reason.substr(reason.find(':') + 1) + ".\n";
  std::string path = std::string(ELMCART_DOCS) + "/moves-by-language.md";
  if (std::getenv("ELMCART_WRITE")) std::ofstream(path) << table;
  auto written = readWhole(path);
  EXPECT_TRUE(written.ok() && *written == table) << "run the unit tests with ELMCART_WRITE=1 to write " << path << " anew";
}

}  // namespace
}  // namespace elmcart
