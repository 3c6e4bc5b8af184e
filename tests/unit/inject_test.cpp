// Inject as the writers of the languages write it: traps that a change which keeps all behaviour must see, each on a few
// lines, with what is written, or the reason for which a place is left.
#include <gtest/gtest.h>

#include "config/build_systems.h"
#include "rework/moves.h"
#include "rework/rework.h"
#include "support/folder.h"

namespace elmcart {
namespace {

#define PYTHON_TIDES "class Tides:\n    def __init__(self):\n        self.asked = 0\n\n    def height(self, hour):\n        self.asked += 1\n        return hour\n\n\ntides = Tides()\n\n\n"

struct Trap {
  const char* name;
  const char* file;
  const char* text;
  const char* entity;
  std::vector<const char*> written;   // stands in the result
  std::vector<const char*> absent;    // does not
  const char* reason;                 // why a place is left; empty: none is by hand
};
void PrintTo(const Trap& trap, std::ostream* out) { *out << trap.name; }

class InjectTraps : public testing::TestWithParam<Trap> {};

TEST_P(InjectTraps, IsWrittenOrLeftWithItsReason) {
  const Trap& trap = GetParam();
  Folder folder;
  folder.write(trap.file, trap.text);
  if (std::string(trap.entity) == "tides.tides") folder.write("tides.py", PYTHON_TIDES);
  ReworkOptions options;
  options.confirm = false;
  options.jobs = 1;
  auto done = rework(folder.path(), Config{}, trap.entity, options);
  ASSERT_TRUE(done.ok()) << done.error().line();
  std::string text = done->files.empty() ? trap.text : done->files.front().after, said;
  for (const char* wanted : trap.written) EXPECT_NE(text.find(wanted), std::string::npos) << wanted << "\n--- in\n" << text;
  for (const char* unwanted : trap.absent) EXPECT_EQ(text.find(unwanted), std::string::npos) << unwanted << "\n--- in\n" << text;
  for (const ByHand& place : done->byHand) said += place.reason + "\n";
  for (const ByHand& place : done->left) said += place.reason + "\n";
  if (*trap.reason) EXPECT_NE(said.find(trap.reason), std::string::npos) << said;
  else EXPECT_TRUE(done->byHand.empty()) << said;
}

#define JAVA_TIDES "class Tides {\n    private static final Tides TIDES = new Tides();\n    private int asked;\n    private Tides() {\n    }\n    static Tides get() {\n        return TIDES;\n    }\n    int height(int hour) {\n        return asked++ + hour;\n    }\n}\n"
#define SCRIPT_TIDES "class Tides {\n  constructor() {\n    this.asked = 0;\n  }\n\n  height(hour) {\n    this.asked += 1;\n    return hour;\n  }\n}\n\nconst tides = new Tides();\n\n"
#define SHARP_TIDES "class Tides\n{\n    private static readonly Tides tides = new Tides();\n    private int asked;\n    private Tides() { }\n    public static Tides Get() { return tides; }\n    public int Height(int hour) { return asked++ + hour; }\n}\n\n"
#define PHP_TIDES "<?php\nclass Tides\n{\n    private static $tides;\n    private $asked = 0;\n\n    private function __construct()\n    {\n    }\n\n    public static function get()\n    {\n        return self::$tides = self::$tides ?: new Tides();\n    }\n\n    public function height($hour)\n    {\n        $this->asked++;\n        return $hour;\n    }\n}\n\n"

#define KOTLIN_TIDES "class Tides private constructor() {\n    private var asked = 0\n    fun height(hour: Int): Int { asked++; return hour }\n\n    companion object {\n        private val tides = Tides()\n        fun get(): Tides = tides\n    }\n}\n\n"
#define SWIFT_TIDES "class Tides {\n    static let shared = Tides()\n    private var asked = 0\n    func height(_ hour: Int) -> Int { asked += 1; return hour }\n}\n\n"
#define DART_TIDES "class Tides {\n  static final Tides instance = Tides._();\n  Tides._();\n  int asked = 0;\n  int height(int hour) => hour + asked++;\n}\n\n"
#define TYPED_TIDES "export class Tides {\n  private static tides: Tides | undefined;\n  private asked = 0;\n\n  static get(): Tides {\n    if (!Tides.tides) Tides.tides = new Tides();\n    return Tides.tides;\n  }\n\n  height(hour: number): number {\n    this.asked += 1;\n    return hour;\n  }\n}\n\n"

// A file that imports from the same package by its name can import what fetches the object as well.
TEST(InjectWherePutTogether, ImportsWhatFetchesTheObject) {
  Folder folder;
  folder.write("office/__init__.py", "");
  folder.write("office/tides.py", PYTHON_TIDES);
  folder.write("office/quay.py", "from office.tides import tides\n\n\nclass Quay:\n    def depth(self):\n        return tides.height(1)\n");
  folder.write("main.py", "from office.quay import Quay\n\nquay = Quay()\nprint(quay.depth())\n");
  ReworkOptions options;
  options.confirm = false;
  options.retire = true;
  options.jobs = 1;
  auto done = rework(folder.path(), Config{}, "office.tides.tides", options);
  ASSERT_TRUE(done.ok()) << done.error().line();
  auto main = std::find_if(done->files.begin(), done->files.end(), [](const WriteBackFile& file) { return file.path == "main.py"; });
  ASSERT_NE(main, done->files.end());
  EXPECT_EQ(main->after, "from office.quay import Quay\nfrom office.tides import tides\n\nquay = Quay(shared_tides=tides)\nprint(quay.depth())\n");
}

// A class that only passes the object on names its class nowhere yet.
TEST(InjectAcrossPackages, ImportsTheClass) {
  struct Row {
    const char *ending, *tides, *base, *derived, *entity, *wanted;
  };
  const Row rows[] = {
      {"java", "package office;\n\npublic class Tides {\n    private static final Tides TIDES = new Tides();\n    private int asked;\n    private Tides() {\n    }\n    public static Tides get() {\n        return TIDES;\n    }\n    public int height() {\n        return asked++;\n    }\n}\n",
       "package quays;\n\nimport office.Tides;\n\nclass Boat {\n    Boat(int rank) {\n    }\n    int depth() {\n        return Tides.get().height();\n    }\n}\n\nclass Yard {\n    int open() {\n        return Tides.get().height() + new Ferry().depth();\n    }\n}\n",
       "package quays;\n\nimport java.util.List;\n\nclass Ferry extends Boat {\n    Ferry() {\n        super(1);\n    }\n}\n", "office.Tides", "import java.util.List;\nimport office.Tides;\n"},
      {"kt", "package office\n\nclass Tides private constructor() {\n    private var asked = 0\n    fun height(): Int = asked++\n\n    companion object {\n        private val tides = Tides()\n        fun get(): Tides = tides\n    }\n}\n",
       "package quays\n\nimport office.Tides\n\nopen class Boat(rank: Int) {\n    fun depth(): Int = Tides.get().height()\n}\n\nclass Yard {\n    fun open(): Int = Tides.get().height() + Ferry().depth()\n}\n",
       "package quays\n\nimport kotlin.math.max\n\nclass Ferry : Boat(max(1, 2))\n", "office.Tides", "import kotlin.math.max\nimport office.Tides\n\nclass Ferry(tides: Tides = Tides.get()) : Boat(max(1, 2), tides = tides)\n"},
  };
  for (const Row& row : rows) {
    Folder folder;
    std::string ending = row.ending;
    folder.write("office/Tides." + ending, row.tides);
    folder.write("quays/Boat." + ending, row.base);
    folder.write("quays/Ferry." + ending, row.derived);
    ReworkOptions options;
    options.confirm = false;
    options.jobs = 1;
    auto done = rework(folder.path(), Config{}, row.entity, options);
    ASSERT_TRUE(done.ok()) << done.error().line();
    auto ferry = std::find_if(done->files.begin(), done->files.end(), [&](const WriteBackFile& file) { return file.path == "quays/Ferry." + ending; });
    ASSERT_NE(ferry, done->files.end()) << ending;
    EXPECT_NE(ferry->after.find(row.wanted), std::string::npos) << ferry->after;
  }
}

INSTANTIATE_TEST_SUITE_P(All, InjectTraps, testing::Values(
    Trap{"JavaOfTheDeclaredClass", "Office.java", "interface Tides {\n    int height(int hour);\n}\n\nclass Coast {\n    private static final SpringTides TIDES = new SpringTides();\n\n    static Tides get() {\n        return TIDES;\n    }\n\n    private static class SpringTides implements Tides {\n        private int asked;\n\n        public int height(int hour) {\n            return hour + asked++;\n        }\n    }\n}\n\nclass Pilot {\n    int ask() {\n        return Coast.get().height(1);\n    }\n}\n", "Coast.TIDES",
         {"    private final Tides tides;\n", "    Pilot(Tides tides) {\n", "return tides.height(1);"}, {"SpringTides springTides"}, ""},
    // ----- what a field's first value makes is made in the constructors, which have the object
    Trap{"java_made_as_first_values", "A.java", JAVA_TIDES "class Quay {\n    int depth() {\n        return Tides.get().height(1);\n    }\n}\nclass Office {\n    private final Quay north = new Quay();\n    private final String name;\n    Office(String name) { // as it is painted\n        this.name = name;\n    }\n    int open() {\n        return Tides.get().height(0) + north.depth();\n    }\n}\n", "Tides",
         {"    private final Quay north;\n", "    Office(String name, Tides tides) { // as it is painted\n        this.north = new Quay(tides);\n        this.tides = tides;\n        this.name = name;\n"}, {"new Quay()"}, ""},
    // ----- a parameter is not called as the function is that fetches the object
    Trap{"python_accessor_by_that_name", "a.py", "class Tides:\n    def __init__(self):\n        self.asked = 0\n\n    def height(self, hour):\n        self.asked += 1\n        return hour\n\n\n_tides = None\n\n\ndef tides():\n    global _tides\n    if _tides is None:\n        _tides = Tides()\n    return _tides\n\n\nclass Quay:\n    def depth(self):\n        return tides().height(1)\n", "a.Tides",
         {"    def __init__(self, shared_tides=None):\n        self._shared_tides = tides() if shared_tides is None else shared_tides\n", "return self._shared_tides.height(1)"}, {}, ""},
    // ----- a remark behind the brace stays there; what a file does sees its own global by its name
    Trap{"php_remark_behind_the_brace", "a.php", "<?php\nclass Tides\n{\n    private $asked = 0;\n\n    public function height($hour)\n    {\n        return $this->asked++ + $hour;\n    }\n}\n\nclass Quay\n{\n    private $name;\n\n    public function __construct() { // unnamed\n        $this->name = '';\n    }\n\n    public function depth()\n    {\n        global $tides;\n        return $tides->height(1);\n    }\n}\n\n$tides = new Tides();\n$quay = new Quay();\n", "$tides",
         {"    public function __construct(?Tides $tides = null) { // unnamed\n        $this->tides = $tides ?? $GLOBALS['tides'];\n"}, {"global"}, ""},
    // ----- a derived class reads the one field of its base, which is opened for it, and hands the object down
    Trap{"java_derived", "A.java", JAVA_TIDES "class Boat {\n    int depth() {\n        return Tides.get().height(1);\n    }\n}\nclass Ferry extends Boat {\n    int low() {\n        return Tides.get().height(2);\n    }\n}\n", "Tides",
         {"    protected final Tides tides;\n", "    Ferry() {\n        this(Tides.get());\n    }\n\n    Ferry(Tides tides) {\n        super(tides);\n    }\n", "return tides.height(2);"}, {"private final Tides tides;"}, ""},
    Trap{"csharp_derived_and_replaced", "a.cs", "class Tides\n{\n    private static Tides tides = new Tides();\n    private int asked;\n    public static Tides Get() { return tides; }\n    public static void Use(Tides other) { tides = other; }\n    public int Height(int hour) { return asked++ + hour; }\n}\n\nclass Boat\n{\n    private readonly int first;\n    public Boat() { first = Tides.Get().Height(3); }\n    public int Depth() { return Tides.Get().Height(first); }\n}\n\nclass Ferry : Boat\n{\n    public int Low() { return Tides.Get().Height(2); }\n}\n", "Tides.tides",
         {"    protected readonly Tides tides;\n", "first = (tides ?? Tides.Get()).Height(3);", "    protected Tides CurrentTides => tides ?? Tides.Get();\n", "    public Ferry() : this((Tides) null)\n", "    internal Ferry(Tides tides) : base(tides)\n", "return CurrentTides.Height(2);"}, {}, ""},
    Trap{"typed_script_derived", "a.ts", TYPED_TIDES "export class Boat {\n  constructor(private readonly name: string) {}\n\n  depth(): number {\n    return Tides.get().height(this.name.length);\n  }\n}\n\nexport class Ferry extends Boat {\n  low(): number {\n    return Tides.get().height(2);\n  }\n}\n", "a.Tides",
         {"  constructor(private readonly name: string, protected readonly tides: Tides = Tides.get()) {}\n", "return this.tides.height(2);"}, {}, ""},
    // ----- first values that need the object move into the constructor, in languages where they could not see it
    Trap{"typed_script_first_values", "a.ts", TYPED_TIDES "export class Boat {\n  depth(): number {\n    return Tides.get().height(1);\n  }\n}\n\nexport class Office {\n  private boat = new Boat();\n\n  open(): number {\n    return Tides.get().height(0) + this.boat.depth();\n  }\n}\n", "a.Tides",
         {"  private boat: Boat;\n  private readonly tides: Tides;\n", "    this.boat = new Boat(tides);\n"}, {"new Boat()"}, ""},
    // ----- Kotlin: the constructor behind the name declares the field; first values and init see its parameters
    Trap{"kotlin_classes", "a.kt", KOTLIN_TIDES "open class Boat(val name: String) {\n    fun depth(): Int = Tides.get().height(1)\n}\n\nclass Ferry(name: String) : Boat(name) {\n    fun low(): Int = Tides.get().height(2)\n}\n\nclass Quay(\n    private val rank: Int,\n) {\n    private val depth = Tides.get().height(rank)\n\n    init {\n        println(Tides.get().height(4))\n    }\n\n    constructor(name: String) : this(name.length)\n\n    fun shown() = depth\n}\n\nclass Office {\n    private val quay = Quay(\"east\")\n\n    fun open(): Int = Tides.get().height(0) + Ferry(\"a\").low() + quay.shown()\n}\n", "Tides",
         {"open class Boat(val name: String, protected val tides: Tides = Tides.get()) {", "class Ferry(name: String, tides: Tides = Tides.get()) : Boat(name, tides = tides) {\n    fun low(): Int = tides.height(2)", "    private val rank: Int,\n    tides: Tides = Tides.get(),\n) {\n    private val depth = tides.height(rank)\n", "println(tides.height(4))", "constructor(name: String, tides: Tides = Tides.get()) : this(name.length, tides = tides)", "private val quay = Quay(\"east\", tides = tides)", "Ferry(\"a\", tides = tides).low()"}, {}, ""},
    Trap{"kotlin_data", "a.kt", KOTLIN_TIDES "data class Mark(val at: Int) {\n    fun depth(): Int = Tides.get().height(at)\n}\n", "Tides", {"= Tides.get().height(at)"}, {}, "is what its objects are"},
    Trap{"kotlin_trailing_lambda", "a.kt", KOTLIN_TIDES "class Watch(val done: (Int) -> Unit) {\n    fun go() = done(Tides.get().height(1))\n}\n", "Tides", {"done(Tides.get().height(1))"}, {}, "may write behind the brackets"},
    // ----- what only sees to it that the object is there stays; a class in several parts is changed where its constructors stand
    Trap{"java_unused", "A.java", JAVA_TIDES "class Quay {\n    int depth() {\n        Tides.get();\n        return Tides.get().height(1);\n    }\n}\n", "Tides", {"        Tides.get();\n        return tides.height(1);\n"}, {}, "only seen to that the object is there"},
    Trap{"csharp_parts_and_marks", "a.cs", SHARP_TIDES "partial class Quay\n{\n    private int m_rank;\n    public int Rank() { return m_rank; }\n    private int m_late;\n}\n\npartial class Quay\n{\n    private int m_first;\n\n    public Quay() { m_first = 1; }\n    public int Depth() { return Tides.Get().Height(m_first); }\n}\n", "Tides",
         {"    private int m_first;\n    private readonly Tides m_tides;\n", "internal Quay(Tides tides) { m_tides = tides; m_first = 1; }", "return m_tides.Height(m_first);"}, {}, ""},
    // ----- a constructor that keeps the object reads it from the field; what is said of a parameter may be of several lines
    Trap{"python_kept_and_read", "a.py", PYTHON_TIDES "class Quay:\n    def __init__(self, hour):\n        \"\"\"\n        :param hour:\n            the hour\n        \"\"\"\n        self.low = tides.height(hour)\n        self.high = tides.height(hour + 6)\n\n    def depth(self):\n        return tides.height(1)\n", "a.tides",
         {"            the hour\n        :param shared_tides: the object", "        self.low = self._shared_tides.height(hour)\n        self.high = self._shared_tides.height(hour + 6)\n"}, {}, ""},
    Trap{"php_kept_and_read", "a.php", PHP_TIDES "class Quay\n{\n    private $low;\n\n    public function __construct()\n    {\n        $this->low = Tides::get()->height(1) + Tides::get()->height(7);\n    }\n\n    public function depth()\n    {\n        return Tides::get()->height(1);\n    }\n}\n", "Tides",
         {"        $this->tides = $tides ?? Tides::get();\n        $this->low = $this->tides->height(1) + $this->tides->height(7);\n"}, {}, ""},
    // ----- Swift
    Trap{"swift_classes", "a.swift", SWIFT_TIDES "class Boat {\n    let name: String\n\n    /// - Parameter name: what it is called\n    init(name: String) { self.name = name }\n\n    convenience init() { self.init(name: \"x\") }\n\n    func depth() -> Int { return Tides.shared.height(1) }\n}\n\nclass Ferry: Boat {\n    func low() -> Int { return Tides.shared.height(2) }\n}\n\nclass Office {\n    private let boat = Boat()\n\n    func open() -> Int { return Tides.shared.height(0) + boat.depth() }\n}\n", "Tides",
         {"    let tides: Tides\n", "    /// - Parameter tides: what to use instead of the shared one\n    init(name: String, tides: Tides = Tides.shared) {\n        self.tides = tides\n        self.name = name\n    }\n", "convenience init(tides: Tides = Tides.shared) { self.init(name: \"x\", tides: tides) }", "func low() -> Int { return self.tides.height(2) }", "    private let boat: Boat\n", "self.boat = Boat(tides: tides)"}, {"private let tides: Tides\n\n    ///"}, ""},
    Trap{"swift_required", "a.swift", SWIFT_TIDES "class Boat {\n    required init() {}\n    func depth() -> Int { return Tides.shared.height(1) }\n}\n", "Tides", {"return Tides.shared.height(1)"}, {}, "marked required"},
    // ----- Dart
    Trap{"dart_classes", "a.dart", DART_TIDES "class Boat {\n  final String name;\n\n  Boat(this.name);\n  Boat.bare() : this('x');\n\n  int depth() => Tides.instance.height(1);\n}\n\nclass Ferry extends Boat {\n  Ferry({required String name}) : super(name);\n\n  int low() => Tides.instance.height(2);\n}\n\nclass Office {\n  final boat = Boat('c');\n  final ferry = Ferry(name: 'a');\n\n  int open() => Tides.instance.height(0) + Boat.bare().depth();\n}\n", "a.Tides",
         {"  final Tides tides;\n\n  Boat(this.name, {Tides? tides}) : tides = tides ?? Tides.instance;\n", "  Boat.bare({Tides? tides}) : this('x', tides: tides);\n", "  Ferry({required String name, Tides? tides}) : super(name, tides: tides);\n", "int low() => tides.height(2);", "  final Boat boat;\n  final Ferry ferry;\n", "boat = Boat('c', tides: tides), ferry = Ferry(name: 'a', tides: tides)"}, {}, ""},
    Trap{"dart_constant", "a.dart", DART_TIDES "class Mark {\n  const Mark(this.at);\n  final int at;\n  int depth() => Tides.instance.height(at);\n}\n", "a.Tides", {"=> Tides.instance.height(at);"}, {}, "a constant constructor can fetch nothing"},
    // ----- uses in constructors alone: a parameter, no field, and only those constructors change
    Trap{"java_constructors_only", "A.java", JAVA_TIDES "class Quay {\n    final int depth;\n\n    /**\n     * At that hour.\n     *\n     * @param hour  the hour\n     * @since 2\n     */\n    Quay(int hour) {\n        depth = Tides.get().height(hour);\n    }\n    Quay() {\n        depth = 0;\n    }\n}\n", "Tides",
         {"    Quay(int hour) {\n        this(hour, Tides.get());\n    }\n", "     * @param hour  the hour\n     * @param tides  the tides to use\n     */\n    Quay(int hour, Tides tides) {\n        depth = tides.height(hour);", "    Quay() {\n        depth = 0;\n    }"}, {"private final Tides tides;"}, ""},
    Trap{"python_constructors_only", "a.py", PYTHON_TIDES "class Quay:\n    def __init__(self, hour):\n        self.depth = tides.height(hour)\n", "a.tides",
         {"    def __init__(self, hour, shared_tides=None):\n        self.depth = (tides if shared_tides is None else shared_tides).height(hour)\n"}, {"self._"}, ""},
    // ----- values
    Trap{"java_serialised", "A.java", "import java.io.Serializable;\n" JAVA_TIDES "class Quay implements Serializable {\n    int depth() {\n        return Tides.get().height(1);\n    }\n}\n", "Tides", {"return Tides.get().height(1);"}, {}, "can be serialised"},
    Trap{"java_compared", "A.java", JAVA_TIDES "class Quay {\n    int depth() {\n        return Tides.get().height(1);\n    }\n    public int hashCode() {\n        return 3;\n    }\n}\n", "Tides", {"return Tides.get().height(1);"}, {}, "compared by value"},
    Trap{"python_slots", "a.py", PYTHON_TIDES "class Quay:\n    __slots__ = ('name',)\n\n    def depth(self):\n        return tides.height(1)\n", "a.tides", {"return tides.height(1)"}, {}, "lists its fields in __slots__"},
    Trap{"python_setattr", "a.py", PYTHON_TIDES "class Quay:\n    def __setattr__(self, name, value):\n        pass\n\n    def depth(self):\n        return tides.height(1)\n", "a.tides", {"return tides.height(1)"}, {}, "decides in __setattr__"},
    Trap{"python_slots_of_an_inner_class", "a.py", PYTHON_TIDES "class Quay:\n    class Mark:\n        __slots__ = ('name',)\n\n    def depth(self):\n        return tides.height(1)\n", "a.tides", {"return self._shared_tides.height(1)"}, {}, ""},
    // ----- overloads
    Trap{"java_null", "A.java", JAVA_TIDES "class Quay {\n    final int depth;\n    Quay(int hour) {\n        depth = Tides.get().height(hour);\n    }\n    Quay(int hour, String name) {\n        depth = hour;\n    }\n    static Quay first() {\n        return new Quay(1, null);\n    }\n}\n", "Tides", {"new Quay(1, (String) null)"}, {}, ""},
    Trap{"java_any_object", "A.java", JAVA_TIDES "class Quay {\n    final int depth;\n    Quay(int hour) {\n        depth = Tides.get().height(hour);\n    }\n    Quay(int hour, Object name) {\n        depth = hour;\n    }\n}\n", "Tides", {"depth = Tides.get().height(hour);"}, {}, "would catch calls that mean that one"},
    Trap{"csharp_no_arguments_stay", "a.cs", SHARP_TIDES "class Quay\n{\n    public Quay(int hour = 2)\n    {\n    }\n    public int Depth() { return Tides.Get().Height(1); }\n}\n\nclass Office\n{\n    public int Open() { return Tides.Get().Height(0) + new Quay().Depth(); }\n}\n", "Tides",
         {"    public Quay(int hour = 2) : this(hour, Tides.Get())\n    {\n    }\n\n    internal Quay(int hour, Tides tides)\n    {\n        this.tides = tides;", "new Quay(2, tides).Depth()"}, {}, ""},
    // ----- what may be replaced is read late
    Trap{"python_replaced", "a.py", PYTHON_TIDES "def replace(other):\n    global tides\n    tides = other\n\n\nclass Quay:\n    def depth(self):\n        return tides.height(1)\n\n    def low(self):\n        return tides.height(6)\n", "a.tides",
         {"        self._shared_tides = shared_tides\n", "    def _current_shared_tides(self):\n        return tides if self._shared_tides is None else self._shared_tides\n", "return self._current_shared_tides().height(1)"}, {}, ""},
    Trap{"java_replaced", "A.java", "class Tides {\n    private static Tides tides = new Tides();\n    private int asked;\n    static Tides get() {\n        return tides;\n    }\n    static void set(Tides other) {\n        tides = other;\n    }\n    int height(int hour) {\n        return asked++ + hour;\n    }\n}\nclass Quay {\n    int depth() {\n        return Tides.get().height(1);\n    }\n}\n", "Tides",
         {"this((Tides) null);", "    private Tides currentTides() {\n        return tides != null ? tides : Tides.get();\n    }\n", "return currentTides().height(1);"}, {}, ""},
    // ----- a function that imports the object for itself
    Trap{"python_import_inside", "a.py", "class Quay:\n    def depth(self):\n        from tides import tides\n        return tides.height(1)\n", "tides.tides",
         {"        from tides import tides\n        return (tides if self._shared_tides is None else self._shared_tides).height(1)\n", "        self._shared_tides = shared_tides\n"}, {}, ""},
    // ----- a record that others fill is handed in, not what it holds
    Trap{"python_holder", "a.py", "class _Bells:\n    def __init__(self):\n        self.main = None\n\n\nBells = _Bells()\n\n\nclass Quay:\n    def __init__(self, name):\n        self.name = name\n\n    def open(self, bell):\n        Bells.main = bell\n\n    def ring(self):\n        if Bells.main is not None:\n            Bells.main.ring()\n", "a.Bells",
         {"def __init__(self, name, bells=None):\n        self._bells = Bells if bells is None else bells\n", "self._bells.main = bell", "if self._bells.main is not None:\n            self._bells.main.ring()"}, {}, ""},
    // ----- both halves of a pair, a pointer to what a variable holds, and a function beside the one that others call
    Trap{"go_variable", "a.go", "package harbour\n\nimport \"sync\"\n\ntype bellTower struct {\n\tsync.Mutex\n\tropes map[int]int\n}\n\nvar tower = bellTower{ropes: map[int]int{}}\n\ntype Watch struct {\n\tname string\n}\n\nfunc NewWatch(name string) *Watch {\n\ttower.Lock()\n\tdefer tower.Unlock()\n\ttower.ropes[0]++\n\treturn &Watch{name: name}\n}\n\nfunc (w *Watch) Ring() {\n\ttower.Lock()\n\ttower.ropes[1]++\n\ttower.Unlock()\n}\n", "harbour.tower",
         {"\tname  string\n\ttower *bellTower\n", "\treturn newWatch(name, &tower)\n", "func newWatch(name string, tower *bellTower) *Watch {\n\ttower.Lock()\n\tdefer tower.Unlock()\n", "&Watch{name: name, tower: tower}", "\tw.tower.Lock()\n\tw.tower.ropes[1]++\n\tw.tower.Unlock()\n"}, {}, ""},
    // ----- bases, and what passes on by name whatever it is given
    Trap{"python_bases", "a.py", PYTHON_TIDES "class Boat:\n    def __init__(self, quay):\n        self.quay = quay\n\n    def wait(self):\n        return tides.height(1)\n\n\nclass Ferry(Boat):\n    def __init__(self, quay, **others):\n        Boat.__init__(self, quay, **others)\n\n\nclass Pilot(Boat):\n    def __init__(self, quay):\n        Boat.__init__(self, quay)\n\n\nclass Office:\n    def open(self):\n        tides.height(0)\n        return [Ferry(1), Pilot(2)]\n", "a.tides",
         {"    def __init__(self, quay, **others):\n        Boat.__init__(self, quay, **others)\n", "    def __init__(self, quay, shared_tides=None):\n        Boat.__init__(self, quay, shared_tides=shared_tides)\n", "[Ferry(1, shared_tides=self._shared_tides), Pilot(2, shared_tides=self._shared_tides)]"}, {}, ""},
    // ----- first values of fields
    Trap{"java_first_value", "A.java", JAVA_TIDES "class Quay {\n    private final int depth = Tides.get().height(3);\n    Quay(String name) {\n        super();\n    }\n}\n", "Tides", {"    private final int depth;\n", "        super();\n        this.depth = tides.height(3);\n"}, {}, ""},
    // ----- scripts
    Trap{"script_default", "a.js", SCRIPT_TIDES "class Quay {\n  constructor(name) {\n    this.name = name;\n  }\n\n  depth() {\n    return [1, 2].map((hour) => tides.height(hour));\n  }\n}\n\nclass Office {\n  constructor() {\n    this.quay = new Quay('east');\n  }\n\n  open() {\n    return tides.height(0);\n  }\n}\n", "a.tides",
         {"  constructor(name, sharedTides = tides) {\n    this.sharedTides = sharedTides;\n", "this.sharedTides.height(hour)", "new Quay('east', sharedTides)"}, {}, ""},
    Trap{"script_rest", "a.js", SCRIPT_TIDES "class Quay {\n  constructor(...names) {\n    this.names = names;\n  }\n\n  depth() {\n    return tides.height(1);\n  }\n}\n", "a.tides", {"return tides.height(1);"}, {}, "takes any number of arguments"},
    Trap{"types_in_scripts", "a.ts", "export class Tides {\n  private static tides: Tides | undefined;\n  private asked = 0;\n\n  static get(): Tides {\n    if (!Tides.tides) Tides.tides = new Tides();\n    return Tides.tides;\n  }\n\n  height(hour: number): number {\n    this.asked += 1;\n    return hour;\n  }\n}\n\nexport class Quay {\n  depth(): number {\n    return Tides.get().height(1);\n  }\n}\n", "a.Tides",
         {"  private readonly tides: Tides;\n\n  constructor(tides: Tides = Tides.get()) {\n    this.tides = tides;\n  }\n", "return this.tides.height(1);"}, {}, ""},
    // ----- PHP
    Trap{"php_optional", "a.php", PHP_TIDES "class Quay\n{\n    private $name;\n\n    /**\n     * @param string $name\n     */\n    public function __construct($name, $rank = 2)\n    {\n        $this->name = $name;\n    }\n\n    public function depth()\n    {\n        return Tides::get()->height(1);\n    }\n}\n\nclass Office\n{\n    public function open()\n    {\n        return Tides::get()->height(0) + (new Quay('east'))->depth();\n    }\n}\n", "Tides",
         {"    private $name;\n    private $tides;\n", "     * @param string $name\n     * @param Tides|null $tides\n", "__construct($name, $rank = 2, ?Tides $tides = null)\n    {\n        $this->tides = $tides ?? Tides::get();\n", "return $this->tides->height(1);", "new Quay('east', 2, $this->tides)"}, {}, ""},
    Trap{"php_global_variable", "a.php", "<?php\nclass Tides\n{\n    public $asked = 0;\n\n    public function height($hour)\n    {\n        return $hour + $this->asked++;\n    }\n}\n\n$tides = new Tides();\n$boats = 0;\n\nclass Quay\n{\n    public function depth()\n    {\n        global $boats, $tides;\n        return $tides->height(++$boats);\n    }\n\n    public function flood()\n    {\n        global $tides;\n        return $tides->height(0);\n    }\n}\n", "$tides",
         {"$this->tides = $tides ?? $GLOBALS['tides'];", "        global $boats;\n        return $this->tides->height(++$boats);", "    public function flood()\n    {\n        return $this->tides->height(0);"}, {}, ""},
    Trap{"php_function_inside", "a.php", PHP_TIDES "class Quay\n{\n    private $later;\n\n    public function __construct()\n    {\n        $this->later = function () {\n            return Tides::get()->height(1);\n        };\n    }\n}\n", "Tides", {"return Tides::get()->height(1);"}, {}, "does not see its parameters"}),
    [](const auto& info) { return std::string(info.param.name); });

// ----- how a project is built and tested

struct KnownProject {
  const char* name;
  std::vector<std::pair<const char*, const char*>> files;
  const char* system;
  const char* test;  // in the test command
};
void PrintTo(const KnownProject& project, std::ostream* out) { *out << project.name; }

class BuildSystems : public testing::TestWithParam<KnownProject> {};

TEST_P(BuildSystems, AreToldByTheirFiles) {
  Folder folder;
  for (auto& [path, text] : GetParam().files) folder.write(path, text);
  auto systems = buildSystemsOf(folder.path());
  ASSERT_TRUE(systems.ok());
  ASSERT_FALSE(systems->empty());
  EXPECT_EQ(systems->front().name, GetParam().system);
  std::string commands;
  for (const std::string& command : systems->front().test) commands += command + "\n";
  EXPECT_NE(commands.find(GetParam().test), std::string::npos) << commands;
  // What is written is read back as it was meant.
  folder.write("elmcart.toml", configurationFor(systems->front(), *systems));
  auto config = readConfig(folder / "elmcart.toml");
  ASSERT_TRUE(config.ok()) << config.error().line();
  EXPECT_EQ(config->test, systems->front().test);
  EXPECT_EQ(config->build, systems->front().build);
}

INSTANTIATE_TEST_SUITE_P(All, BuildSystems, testing::Values(
    KnownProject{"cmake", {{"CMakeLists.txt", "project(harbour)\noption(HARBOUR_TESTS \"Build the tests\" OFF)\nenable_testing()\n"}}, "CMake with CTest", "ctest --test-dir elmcart-build"},
    KnownProject{"meson", {{"meson.build", "project('harbour', 'cpp')\n"}}, "Meson", "meson test"},
    KnownProject{"make", {{"Makefile", "all:\n\tcc quay.c\ncheck: all\n\t./quay\n"}}, "Make", "make check"},
    KnownProject{"maven", {{"pom.xml", "<project/>"}}, "Maven", "surefire:test"},
    KnownProject{"gradle", {{"build.gradle", ""}, {"gradlew", ""}}, "Gradle", "./gradlew --offline test"},
    KnownProject{"javac", {{"src/Quay.java", "class Quay {}"}, {"test/QuayTest.java", "import org.junit.Test;"}}, "plain Java (javac)", "org.junit.runner.JUnitCore"},
    KnownProject{"pytest", {{"pyproject.toml", "[tool.pytest.ini_options]\n"}, {"tests/test_quay.py", "def test_a(): pass\n"}}, "Python with pytest", "pytest -q -p no:cacheprovider --junitxml=elmcart-results.xml tests"},
    KnownProject{"unittest_in_package", {{"harbour/__init__.py", ""}, {"harbour/tests/__init__.py", ""}, {"harbour/tests/quaytestcase.py", "import unittest\n"}}, "Python with unittest", "discover -v -s harbour/tests -t . -p '*case*.py'"},
    KnownProject{"python_script", {{"harbour/__init__.py", ""}, {"harbour/tests/__init__.py", ""}, {"harbour/tests/quaytestcase.py", "import unittest\n"}, {"bin/harbour-testcases", "#!/usr/bin/env python3\n"}}, "Python with a test script", "python3 bin/harbour-testcases -v"},
    KnownProject{"jest", {{"package.json", "{\"scripts\": {\"test\": \"jest --coverage\"}}"}}, "npm with jest", "jest --json --outputFile=elmcart-results.json"},
    KnownProject{"mocha", {{"package.json", "{\"scripts\": {\"test\": \"mocha\"}}"}}, "npm with mocha", "npm test"},
    KnownProject{"go", {{"go.mod", "module harbour\n"}, {"quay.go", "package harbour\n"}}, "Go", "go test -v ./..."},
    KnownProject{"phpunit", {{"phpunit.xml", "<phpunit/>"}, {"src/Quay.php", "<?php\n"}}, "PHP with PHPUnit", "--log-junit elmcart-results.xml"},
    KnownProject{"dotnet", {{"Harbour.sln", ""}, {"Harbour/Harbour.csproj", "<KnownProject/>"}}, ".NET", "dotnet test --nologo --no-build"},
    KnownProject{"swift", {{"Package.swift", ""}}, "Swift package", "swift test"},
    KnownProject{"dart", {{"pubspec.yaml", "name: harbour\n"}}, "Dart", "dart test --reporter json"},
    KnownProject{"one_folder_deeper", {{"office/go.mod", "module office\n"}, {"office/quay.go", "package office\n"}}, "Go", "cd 'office' && go test -v ./..."}),
    [](const auto& info) { return std::string(info.param.name); });

TEST(BuildSystems, NoneIsKnownInAnEmptyFolder) {
  Folder folder;
  auto systems = buildSystemsOf(folder.path());
  ASSERT_TRUE(systems.ok());
  EXPECT_TRUE(systems->empty());
  EXPECT_FALSE(buildSystemsOf(folder / "nowhere").ok());
}

}  // namespace
}  // namespace elmcart
