#include "../ledgers/fees.h"

namespace piers {

}  // namespace piers
