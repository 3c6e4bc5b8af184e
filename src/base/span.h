// A half-open range of bytes in one file's text.
#pragma once

#include <cstdint>

namespace elmcart {

struct Span {
  uint32_t begin = 0;  // first byte
  uint32_t end = 0;    // one past the last byte

  uint32_t size() const { return end - begin; }
  bool empty() const { return end <= begin; }
  bool contains(uint32_t at) const { return at >= begin && at < end; }
  bool contains(Span other) const { return other.begin >= begin && other.end <= end; }
  friend bool operator==(Span, Span) = default;
};

}  // namespace elmcart
