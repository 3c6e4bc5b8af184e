// Work on many pieces by a number of threads.
#pragma once

#include <cstddef>
#include <functional>
#include <vector>

namespace elmcart {

// Calls work(i) for each i below sizes.size(), the largest pieces first, so that
// no thread is left with a large one at the end. jobs 0: as many as the machine has.
void forEachLargestFirst(const std::vector<size_t>& sizes, unsigned jobs, const std::function<void(size_t)>& work);

// Calls work(from, to) for pieces of `each` that follow one another below count.
void forEachPiece(size_t count, size_t each, unsigned jobs, const std::function<void(size_t from, size_t to)>& work);

}  // namespace elmcart
