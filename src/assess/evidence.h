// What a probe saw, kept beside the configuration in elmcart-evidence.json, and
// what that means for findings.
#pragma once

#include <string>
#include <vector>

#include "base/result.h"
#include "assess/finding.h"

namespace elmcart {

inline constexpr std::string_view kEvidenceFile = "elmcart-evidence.json";

// A file that is not there holds nothing. Fails when it cannot be understood.
Result<std::vector<Seen>> readEvidence(const std::string& path);
// What was seen of other findings stays. The file is there whole or as it was before.
Result<Done> addEvidence(const std::string& path, const std::vector<Seen>& seen);

// A number for what functions say: it changes with their text, and not with what stands around them.
std::string codeNumber(const Program& program, const std::vector<FunctionIndex>& functions);
// Of a finding: the functions in which its evidence stands.
std::vector<FunctionIndex> codeOf(const Program& program, const Finding& finding);

// "Seen when it was run: creation of TideTable, in 20 of 20 runs; with safe-init: 0 of 50."
std::string seenText(const Seen& seen);

// Likely findings that were seen to happen become certain, those that did not happen less sure;
// what was seen in code that has changed since is told, and changes nothing.
void applyEvidence(const Program& program, const std::vector<Seen>& seen, std::vector<Finding>& findings);

}  // namespace elmcart
