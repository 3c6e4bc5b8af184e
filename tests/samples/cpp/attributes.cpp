// Macros that no header explains: between a name and its first value, before a class, with types; and an array that a constructor may keep.
#include <mutex>
#include <string>

static std::string quay_name  // entity: global-variable quay_name eager language
    INIT_PRIORITY (INIT_BASE - 1)
    ("north");

void rename(const std::string& name) { quay_name = name; }

struct Key {
  Key(int code) : code(code) {}
  int code;
};

struct Keys {
  Keys(Key* keys) : keys(keys) {}
  Key* keys;
};

struct ReadKeys {
  ReadKeys(const Key* keys) : keys(keys) {}
  const Key* keys;
};

static Key crane_keys[] = {Key(1), Key(2)};  // entity: global-variable crane_keys eager language
static Key ship_keys[] = {Key(1), Key(2)};   // harmless: ship_keys
static const Keys crane(crane_keys);    // harmless: crane
static const ReadKeys ship(ship_keys);  // harmless: ship

int codes() { return crane.keys[0].code + ship.keys[0].code; }

// A record that cannot be copied is no value: it is the one there is.
struct Office {  // entity: singleton Office lazy none  // finding: single.open-constructor
  std::mutex lock;
  int papers = 0;
};

static Office* office = nullptr;

Office* theOffice() {
  if (!office) office = new Office;  // finding: thread.unguarded-creation
  return office;
}

// Types in places where only macros take them, and words before a class's name that no header explains.
struct _PierExport Rope {
  int length = 0;
};

class PIER_OLD _PierExport Knot : public Rope {
 public:
  void tie() { length = 1; }
};

static unsigned char* marks = PIER_ALLOC_T(unsigned char, 11, PIER_CATEGORY);  // entity: global-variable marks elsewhere none

void mark(int at) {
  int by = va_arg(at, int);
  marks[at] = by;
}

static Knot knot;  // entity: global-variable knot eager language

void pull() { knot.tie(); }
