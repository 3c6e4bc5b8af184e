#include "office.h"
