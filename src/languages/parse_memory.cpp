#include "languages/parse_memory.h"

#include <tree_sitter/api.h>

#ifdef ELMCART_OWN_HEAPS
#include <mimalloc.h>
#endif

namespace elmcart {

#ifdef ELMCART_OWN_HEAPS

namespace {

thread_local mi_heap_t* heap = nullptr;

void* take(size_t size) { return heap ? mi_heap_malloc(heap, size) : mi_malloc(size); }
void* takeCleared(size_t count, size_t size) { return heap ? mi_heap_calloc(heap, count, size) : mi_calloc(count, size); }
void* resize(void* block, size_t size) { return heap ? mi_heap_realloc(heap, block, size) : mi_realloc(block, size); }

}  // namespace

ParseMemory::ParseMemory() {
  static const bool kSet = (ts_set_allocator(take, takeCleared, resize, mi_free), true);
  (void)kSet;
  heap = mi_heap_new();
}

ParseMemory::~ParseMemory() {
  mi_heap_destroy(heap);
  heap = nullptr;
}

bool ParseMemory::held() { return heap != nullptr; }

#else  // the sanitizers watch every block themselves

ParseMemory::ParseMemory() {}
ParseMemory::~ParseMemory() {}
bool ParseMemory::held() { return false; }

#endif

}  // namespace elmcart
