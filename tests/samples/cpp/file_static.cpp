#include <map>
#include <string>
#include <vector>

namespace port {

int nextNumber() {
  static int number = 0;  // entity: function-static number eager language
  return ++number;
}

thread_local int lastBerth = 0;  // entity: thread-local lastBerth eager language
void remember(int berth) { lastBerth = berth; }

}  // namespace port
