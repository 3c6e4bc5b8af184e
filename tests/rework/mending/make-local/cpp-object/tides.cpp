#include "tides.h"

TideTable& TideTable::get() {
  static TideTable table(4);
  return table;
}
