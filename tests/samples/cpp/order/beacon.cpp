#include "beacon.h"

Beacon beacon;  // entity: shared-instance beacon eager language

Beacon::Beacon() : period_(4) {}
