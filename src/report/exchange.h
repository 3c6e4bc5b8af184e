// Findings in forms that other programs and pages take: SARIF 2.1.0 (OASIS
// standard), CSV (RFC 4180), Markdown (CommonMark with tables), JUnit's XML (no standard;
// the elements and attributes that its readers agree on: testsuites, testsuite, testcase
// with name, classname, file and line, failure and error with message, system-out).
#pragma once

#include <nlohmann/json.hpp>
#include <string>

#include "assess/analysis.h"

namespace elmcart {

nlohmann::ordered_json assessSarif(const Analysis& analysis, std::string_view version);
std::string assessCsv(const Analysis& analysis, bool withAccepted);
std::string assessMarkdown(const Analysis& analysis, bool withAccepted);
// A test case a piece of shared state. It fails where it has a finding of that risk or more that
// is not accepted; other findings stand in its output. A file that could not be used is an error.
std::string assessJunit(const Analysis& analysis, int gate);
// A ledger that accepts each finding of today's by its fingerprint (TOML, as
// docs/configuration.md tells), so that only what is new is told from then on.
std::string assessLedger(const Analysis& analysis, const std::string& because);
// A cell of a CSV row, quoted where it must be.
std::string csvCell(const std::string& text);

}  // namespace elmcart
