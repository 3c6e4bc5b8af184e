#include "base/parallel.h"

#include <oneapi/tbb/info.h>
#include <oneapi/tbb/parallel_for.h>
#include <oneapi/tbb/task_arena.h>

#include <algorithm>
#include <atomic>
#include <numeric>
#include <thread>

namespace elmcart {

void forEachLargestFirst(const std::vector<size_t>& sizes, unsigned jobs, const std::function<void(size_t)>& work) {
  std::vector<size_t> order(sizes.size());
  std::iota(order.begin(), order.end(), size_t{0});
  std::stable_sort(order.begin(), order.end(), [&](size_t a, size_t b) { return sizes[a] > sizes[b]; });
  std::atomic<size_t> next{0};
  auto take = [&] {
    for (size_t i = next.fetch_add(1); i < order.size(); i = next.fetch_add(1)) work(order[i]);
  };
#ifdef ELMCART_PLAIN_THREADS  // the thread sanitizer knows nothing of what TBB does in its library
  std::vector<std::thread> threads;
  for (unsigned t = 0; t < std::max(2u, jobs); ++t) threads.emplace_back(take);
  for (std::thread& thread : threads) thread.join();
#else
  // More threads than the machine has would only be refused, with a warning.
  int most = oneapi::tbb::info::default_concurrency();
  oneapi::tbb::task_arena arena(jobs == 0 ? most : std::min(static_cast<int>(jobs), most));
  arena.execute([&] {
    oneapi::tbb::parallel_for(0, arena.max_concurrency(), [&](int) { take(); });
  });
#endif
}

void forEachPiece(size_t count, size_t each, unsigned jobs, const std::function<void(size_t from, size_t to)>& work) {
  forEachLargestFirst(std::vector<size_t>((count + each - 1) / each, each), jobs, [&](size_t piece) { work(piece * each, std::min(count, (piece + 1) * each)); });
}

}  // namespace elmcart
