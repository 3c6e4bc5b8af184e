// A piece of the tests' samples for each check and language: where `examples/` has no
// program of its own, `explain` shows this.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace elmcart {

struct Excerpt {
  std::string path;  // of the sample, below its language's folder
  std::string text;  // without the comments that state what is found; the line that counts says so
};

// The shortest piece with a line that is reported (`failing`), or that looks so and is
// not. Empty where no sample has such a line. Language and check by their ids.
std::optional<Excerpt> excerptOf(std::string_view check, std::string_view language, bool failing);

}  // namespace elmcart
