// Figures: the reach of an entity as a graph, laid out by Graphviz.
#pragma once

#include <string>

#include "base/result.h"
#include "report/reach.h"

namespace elmcart {

// The graph in Graphviz's language; `tests` adds the tests to it.
std::string reachDot(const Analysis& analysis, size_t entity, bool tests);
// The same in GraphML (graphml.graphdrawing.org).
std::string reachGraphML(const Analysis& analysis, size_t entity);
// Lays a graph out; `format` is "svg" or "png".
Result<std::string> renderDot(const std::string& dot, const std::string& format);

}  // namespace elmcart
