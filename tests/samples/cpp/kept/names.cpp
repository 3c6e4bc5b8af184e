#include "kept.h"

std::map<int, std::string> Names::all = {{1, "one"}};

void rename(int key) { Names::all[key] = "other"; }
