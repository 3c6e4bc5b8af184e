// One tree, read and judged: what moves and reports work from.
#pragma once

#include <memory>

#include "assess/assess.h"
#include "program/load.h"

namespace elmcart {

class Analysis {
 public:
  // What checks and moves ask of the program as a whole, worked out when first
  // asked for. Not for several threads at once.
  const Subject& subject() const;

  Config config;
  Program program;
  std::unique_ptr<Origins> origins;
  Survey survey;
  Assessment assessment;
  std::vector<Error> problems;
  std::vector<UnreadFile> unread;
  size_t bytes = 0, unreadFiles = 0, unreadBytes = 0, fromCache = 0;
  bool lasting = true;  // would another run say the same? See LoadedTree
  double loadSeconds = 0, linkSeconds = 0, surveySeconds = 0, assessSeconds = 0;

 private:
  mutable std::unique_ptr<Judging> judging_;
};

// What of the configuration says which files are read.
LoadOptions loadOptionsOf(const Config& config, unsigned jobs);

// Where what probes saw is kept: beside the configuration, or in the tree's root where there is none.
std::string evidencePath(const Config& config, const std::string& root);

// Lowers, links, surveys and, when asked, assesses a tree that was read.
std::unique_ptr<Analysis> analyse(SourceTree tree, const Config& config, unsigned jobs, bool withAssessment, Cache* cache);

// Loads, links, surveys and, when asked, assesses the tree at `path`.
Result<std::unique_ptr<Analysis>> analyse(const std::string& path, const Config& config, unsigned jobs, bool withAssessment);

// Entities that `name` may mean: an id, the end of an id, a plain name, or else their class.
std::vector<size_t> entitiesNamed(const Analysis& analysis, std::string_view name);
// The nearest right names to a misspelt one, at most three.
std::vector<std::string> nearestNames(std::string_view wrong, const std::vector<std::string>& names);

}  // namespace elmcart
