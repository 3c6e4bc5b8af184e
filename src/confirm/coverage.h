// Which lines the tests executed, as the project's own test command has it written,
// and whether the lines that a change touches are among them.
#pragma once

#include <cstdint>
#include <map>
#include <string>
#include <vector>

#include "base/result.h"

namespace elmcart {

// By path (relative to the tree, '/' between parts) and 1-based line: how often it was
// executed. A line that is not in it runs no code, as far as was told.
using LineCounts = std::map<std::string, std::map<uint32_t, uint64_t>>;

// Reads one coverage file: a tracefile of records SF and DA; the XML form with <class
// filename> and <line number hits>, or with <sourcefile name> and <line nr mi ci>; a Go
// cover profile ("mode: …"). Paths stay as they are written. Fails when it is none of them.
Result<LineCounts> readCoverage(const std::string& text, const std::string& path);

// The lines of `after` (1-based) that `before` does not have in that place.
std::vector<uint32_t> changedLines(const std::string& before, const std::string& after);

struct ChangeCoverage {
  size_t changed = 0;    // lines of the change that run code, as far as was told
  size_t executed = 0;   // of those, by some test
  std::vector<std::pair<std::string, uint32_t>> missed;  // path and line of the others
  std::vector<std::string> untold;                       // changed files that no coverage file names
  bool asked = false;    // was any coverage file read?

  // "5 of 7 changed lines executed by the tests; not src/desk.py:12, 14"; empty when it was not asked.
  std::string summary() const;
};

// How far the tests executed a change, given as texts before and after by path.
ChangeCoverage coverageOf(const LineCounts& counts, bool asked, const std::map<std::string, std::pair<std::string, std::string>>& change);

}  // namespace elmcart
