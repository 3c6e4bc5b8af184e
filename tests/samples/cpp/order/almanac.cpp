#include <fstream>

#include "beacon.h"
