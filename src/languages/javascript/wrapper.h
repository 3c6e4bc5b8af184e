// Functions that are called in place and stand for a module.
#pragma once

#include <tree_sitter/api.h>

#include <set>
#include <string>
#include <string_view>

namespace elmcart::script {

// The parameters of `module` that stand for the object which its file hands out: the function is called
// in place by `call`, given to a wrapper that calls it, or given to a loader. `text` is the file's.
std::set<std::string> exportParameters(TSNode call, TSNode called, TSNode module, std::string_view text);

// The names of members that the statements of `module` give to the object called `object`.
std::set<std::string> membersGiven(TSNode module, std::string_view object, std::string_view text);

// `value` of `… = … = value`.
TSNode lastAssigned(TSNode node);

}  // namespace elmcart::script
