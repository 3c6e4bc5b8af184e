#pragma once
#include <vector>

// Each file that includes this has its own.
static const std::vector<int> kDepths = {3, 5, 8};  // harmless: kDepths
