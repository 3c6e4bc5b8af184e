// Measures what an access costs by 1, 2, 4 … threads: the project's own way
// beside each form in which its language makes one object soundly, and a field.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "assess/analysis.h"

namespace elmcart {

struct CostOptions {
  int rounds = 11;     // of each form and number of threads
  int threads = 4;     // the most; from one on they are doubled
  int firsts = 5;      // processes in which the first access is timed
  std::function<void(const std::string&)> progress;
};

struct CostPoint {
  int threads = 1;
  double median = 0, lower = 0, upper = 0;  // nanoseconds an access: the median and the quartiles
  bool noisy = false;  // the quartiles are further apart than a third of the median
};

struct CostForm {
  std::string name;    // "as it is", "lock at each access", …
  std::vector<CostPoint> points;
};

struct CostResult {
  std::string entity, function;
  std::vector<CostForm> forms;
  double first = 0;    // nanoseconds of the first access in a process, the median: it makes the object where that is lazy
  std::string harness;
  unsigned processors = 0;
  bool noisy = false;  // more than a third of the points are
};

Result<CostResult> measureCost(const std::string& path, const Config& config, const Analysis& analysis, size_t entity, const CostOptions& options);

}  // namespace elmcart
