// Each program of the tree has a count of its own, made before its desk.
#include "weigh_count.h"

extern WeighCount theCount;

WeighCount::WeighCount(const std::string& name) : name_(name) {}
void WeighCount::add(const std::string& what) { count_ += static_cast<int>(what.size()); }

WeighDesk::WeighDesk() { theCount.add("desk"); }
