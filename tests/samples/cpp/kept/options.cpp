#include <pthread.h>

#include "kept.h"

pthread_key_t lastKey = pthread_key_t(-1);  // entity: global-variable lastKey eager language

int lookUp(int key) { return static_cast<int>(Names::all[key].size()) + static_cast<int>(lastKey); }
void setKey() { lastKey = 3; }

// The lambda is kept, and so is the address.
Option kept = Option().setReader([](int key) { return lookUp(key); }).keepTable(&Names::all);  // entity: shared-instance kept eager language  // near: init.order-across-files
// This one is called at once.
Option applied = Option().apply([](int key) { return lookUp(key); });  // entity: shared-instance applied eager language  // finding: init.order-across-files

void reset() {
  kept.apply([](int size) { return size; });
  applied.apply([](int size) { return size; });
}

// A pointer to it is no more than a way to it.
int countNames() {
  std::map<int, std::string>* all = &Names::all;
  return static_cast<int>(all->size());
}
int counted = countNames();  // entity: global-variable counted eager language  // finding: init.order-across-files
void recount() { counted = countNames(); }
