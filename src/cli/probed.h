// What the commands that probe share.
#pragma once

#include "cli/cli.h"
#include "probe/race.h"
#include "probe/watch.h"

namespace elmcart::cli {

// A piece of shared state, with all that is needed to run what makes it.
struct Probed {
  std::string path;
  Config config;
  std::unique_ptr<Analysis> analysis;
  size_t entity = 0;
  bool asJson = false;
  int exitCode = kDone;
  const Entity& shared() const { return analysis->survey.entities[entity]; }
};

// `name`: of shared state, or of a class that a finding is about.
Probed probedOf(const Options& options, const Interruption& interruption, const std::string& path, const std::string& name);
// Races it, and keeps what was seen of findings beside the configuration unless that is not wanted.
std::vector<RaceResult> raceAndKeep(const Options& options, Probed& probed, RaceOptions& race);

}  // namespace elmcart::cli
