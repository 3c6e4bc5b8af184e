#include "tides.h"
