#include "weigh_count.h"

WeighCount theCount("day");  // entity: shared-instance theCount eager language
WeighDesk dayDesk;  // near: init.order-across-files  // harmless: dayDesk
