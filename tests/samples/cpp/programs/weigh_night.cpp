#include "weigh_count.h"

WeighCount theCount("night");  // entity: shared-instance theCount eager language
WeighDesk nightDesk;  // near: init.order-across-files  // harmless: nightDesk
