// What most sources read first; compiled once for each target.
#include <algorithm>
#include <filesystem>
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <unordered_map>
#include <vector>

#include <absl/container/flat_hash_map.h>
#include <fmt/format.h>
#include <nlohmann/json.hpp>
