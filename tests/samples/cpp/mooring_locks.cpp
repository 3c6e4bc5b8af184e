// Locks that are taken by plain functions, that a signature asks for, that begin and end; and words that macros stand for.
#include <map>
#include <string>
#include <thread>

#define QUAY_LOCAL(type) thread_local type
#define QUAY_NEEDS_LOCKS_REQUIRED(...) __attribute__((exclusive_locks_required(__VA_ARGS__)))

struct quay_mutex;
void quay_mutex_init(quay_mutex* mutex);
void quay_mutex_lock(quay_mutex* mutex);
void quay_mutex_unlock(quay_mutex* mutex);
void quay_mutex_destroy(quay_mutex* mutex);

struct Bollard {
  Bollard* next = nullptr;
  int number = 0;
};

static quay_mutex mooring_mutex;  // harmless: mooring_mutex
static std::map<std::string, int> mooring_lines;  // entity: global-variable mooring_lines eager language
static quay_mutex* tide_mutex;  // entity: global-variable tide_mutex elsewhere none
static Bollard* free_bollards = nullptr;  // entity: global-variable free_bollards elsewhere none
static QUAY_LOCAL(int) mooring_depth = 0;  // entity: thread-local mooring_depth eager language

void initialiseMooring() {
  quay_mutex_init(&mooring_mutex);
  tide_mutex = reinterpret_cast<quay_mutex*>(&mooring_mutex);
  mooring_lines.clear();  // near: thread.mixed-guard
}

void endMooring() {
  mooring_lines.clear();  // near: thread.mixed-guard
  quay_mutex_destroy(&mooring_mutex);
}

void addLineLocked(const std::string& ship) QUAY_NEEDS_LOCKS_REQUIRED(mooring_mutex) {
  ++mooring_lines[ship];  // near: thread.mixed-guard
  ++mooring_depth;
}

void moor(const std::string& ship) {
  quay_mutex_lock(&mooring_mutex);
  mooring_lines[ship] = 1;
  quay_mutex_unlock(&mooring_mutex);
}

int linesOf(const std::string& ship) {
  quay_mutex_lock(&mooring_mutex);
  auto found = mooring_lines.find(ship);
  if (found == mooring_lines.end()) {
    quay_mutex_unlock(&mooring_mutex);
    return 0;
  }
  int lines = found->second;
  quay_mutex_unlock(&mooring_mutex);
  return lines;
}

Bollard* takeBollard(int number) {
  quay_mutex_lock(tide_mutex);
  Bollard* taken = free_bollards;
  if (taken) free_bollards = taken->next;
  quay_mutex_unlock(tide_mutex);
  if (!taken) taken = new Bollard;
  taken->number = number;  // near: thread.mixed-guard
  return taken;
}

void giveBollard(Bollard* given) {
  quay_mutex_lock(tide_mutex);
  given->next = free_bollards;
  given->number = 0;
  free_bollards = given;
  quay_mutex_unlock(tide_mutex);
}

static quay_mutex signal_mutex;  // harmless: signal_mutex
static std::map<std::string, int> signal_masts;  // entity: global-variable signal_masts eager language

void hoist(const std::string& flag) {
  quay_mutex_lock(&signal_mutex);
  signal_masts[flag] = 1;
  quay_mutex_unlock(&signal_mutex);
}

void lowerAll() { signal_masts.clear(); }  // finding: thread.mixed-guard

void serveMooring() {
  std::thread one([] { moor("Alma"); giveBollard(takeBollard(1)); addLineLocked("Alma"); hoist("P"); });
  std::thread two([] { moor("Berta"); giveBollard(takeBollard(2)); addLineLocked("Berta"); lowerAll(); });
  one.join();
  two.join();
}
