// Sorting of items that are large, or whose order is told by what is dear to ask.
#pragma once

#include <algorithm>
#include <numeric>
#include <vector>

namespace elmcart {

// Stable, in rising order of key(item), which is asked once an item; each item is moved once.
template <typename Item, typename Key>
void sortByKey(std::vector<Item>& items, Key key) {
  if (items.size() < 2) return;
  std::vector<decltype(key(items[0]))> keys;
  keys.reserve(items.size());
  for (const Item& item : items) keys.push_back(key(item));
  std::vector<size_t> order(items.size());
  std::iota(order.begin(), order.end(), size_t{0});
  std::stable_sort(order.begin(), order.end(), [&](size_t a, size_t b) { return keys[a] < keys[b]; });
  std::vector<Item> sorted;
  sorted.reserve(items.size());
  for (size_t i : order) sorted.push_back(std::move(items[i]));
  items = std::move(sorted);
}

}  // namespace elmcart
