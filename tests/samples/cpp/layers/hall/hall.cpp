#include "../ledgers/dues.h"
