// Texts for a terminal: what each command prints. The summary comes first; how much
// of the rest follows is the caller's choice, and so is colour.
#pragma once

#include <string>

#include "assess/analysis.h"
#include "report/reach_ways.h"

namespace elmcart {

struct TextStyle {
  bool colour = false;
  int width = 110;   // columns
  bool terminal = false;  // where people read: a summary will do
  bool cut = false;  // names and paths that are too long for a table's line are cut to it
  size_t limit = 0;  // rows of a list, the most telling ones; 0: all, with their evidence
};

std::string surveyText(const Analysis& analysis, bool all, const TextStyle& style);
// What was read and what was not, file by file, and how long it took.
std::string surveyNumbers(const Analysis& analysis);
std::string assessText(const Analysis& analysis, bool withAccepted, const TextStyle& style);
std::string reachText(const Analysis& analysis, size_t entity, const TextStyle& style);
// The ways by which code gets at an entity; `of`: what was asked, as "from Quay".
std::string reachWaysText(const Analysis& analysis, size_t entity, const ReachWays& ways, const std::string& of, const TextStyle& style);
// With a failing and a sound sample in the language (its id; "": the first that has one).
std::string explainCheckText(const CheckInfo& info, std::string_view language, const TextStyle& style);
// What a language promises, each promise with its source.
std::string explainLanguageText(const Language& language, const TextStyle& style);
// The languages that are read, and by what their files are known.
std::string languagesText(const TextStyle& style);
std::string explainEntityText(const Analysis& analysis, const Entity& entity, const TextStyle& style);
// One finding with its evidence and the terms of its risk.
std::string explainFindingText(const Analysis& analysis, const Finding& finding, const TextStyle& style);

// A table with a header row: columns as wide as they need to be; to keep
// within the width the `flexible` ones lose their beginnings, widest first.
std::string tableText(const std::vector<std::vector<std::string>>& rows, const TextStyle& style, const std::vector<size_t>& flexible);
// Breaks text at spaces; every line but the first begins with `indent` spaces.
std::string wrapped(std::string_view text, size_t width, size_t indent);

}  // namespace elmcart
