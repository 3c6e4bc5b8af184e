// Helpers for the tables of guarantees.
#pragma once

#include <algorithm>
#include <array>

#include "languages/language.h"

namespace elmcart {

template <size_t N>
constexpr bool sortedByName(const std::array<NamedBits, N>& table) {
  for (size_t i = 1; i < N; ++i)
    if (!(table[i - 1].name < table[i].name)) return false;
  return true;
}

template <size_t N, size_t M>
constexpr std::array<NamedBits, N + M> mergedByName(const std::array<NamedBits, N>& a, const std::array<NamedBits, M>& b) {
  std::array<NamedBits, N + M> out{};
  std::merge(a.begin(), a.end(), b.begin(), b.end(), out.begin(), [](const NamedBits& x, const NamedBits& y) { return x.name < y.name; });
  return out;
}

inline CollectionAct actIn(std::string_view member, std::span<const std::string_view> add, std::span<const std::string_view> remove, std::span<const std::string_view> change,
                           std::span<const std::string_view> read) {
  auto has = [&](std::span<const std::string_view> list) { return std::find(list.begin(), list.end(), member) != list.end(); };
  return has(add) ? CollectionAct::Add : has(remove) ? CollectionAct::Remove : has(change) ? CollectionAct::Change : has(read) ? CollectionAct::Read : CollectionAct::None;
}

// Of mobile systems whose programs are written in Java or Kotlin, and of the frameworks around them.
inline constexpr KeptUntil kListenersOnMobile[] = {
    {"addActivityEventListener", "removeActivityEventListener"},
    {"addLifecycleEventListener", "removeLifecycleEventListener"},
    {"registerActivityLifecycleCallbacks", "unregisterActivityLifecycleCallbacks"},
    {"registerContentObserver", "unregisterContentObserver"},
    {"registerDefaultNetworkCallback", "unregisterNetworkCallback"},
    {"registerNetworkCallback", "unregisterNetworkCallback"},
    {"registerReceiver", "unregisterReceiver"},
};

}  // namespace elmcart
