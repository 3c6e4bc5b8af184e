// In which brackets a place of a prepared text stands, told from the text alone: where the grammar has lost hold of a class or a
// function, what was inside of it seems to stand in the file.
#pragma once

#include <cstdint>
#include <string_view>
#include <vector>

namespace elmcart::cpp {

class Braces {
 public:
  // `text`: without preprocessor lines. Linear in its length.
  explicit Braces(std::string_view text);

  // Does the place stand in the braces of a class, of a function or of a statement?
  bool insideBody(uint32_t at) const;

 private:
  struct Change {
    uint32_t at;
    uint32_t bodies;  // how many such braces are open from there on
  };
  std::vector<Change> changes_;  // by place
};

}  // namespace elmcart::cpp
