/* Included before the Swift grammar's scanner: it asks for room for no state at
   all (calloc(0, …)) and then writes into it. */
#include <stdlib.h>

static inline void *room_for_one(size_t count, size_t size) { return calloc(count ? count : 1, size); }
#define calloc room_for_one
