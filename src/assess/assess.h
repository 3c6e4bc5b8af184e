// The checks: entities in, findings out.
#pragma once

#include <functional>
#include <span>
#include <string>
#include <vector>

#include "assess/collaborators.h"
#include "assess/evidence.h"
#include "assess/finding.h"
#include "assess/reaching.h"
#include "assess/registrations.h"
#include "config/config.h"
#include "flow/threads.h"
#include "survey/survey.h"

namespace elmcart {

// All that a check may look at.
struct Subject {
  const Program& program;
  const Origins& origins;
  const Survey& survey;
  const Threads& threads;
  const Config& config;
  const Reaching& reaching;
  const Locks& locks;
  const std::vector<bool>& testFile;     // by file
  std::vector<bool> exampleFile;         // by file: does it show how a library is used, where there are others?
  std::vector<bool> loadedByOthers;      // by file: does another file use what it defines?
  std::vector<bool> atWork;              // by function: see at_work.h
  std::vector<size_t> entityOfVariable;  // by slot: the entity that is no harmless one, or SIZE_MAX
  std::vector<uint32_t> entitiesOfSlot;  // by slot: of how many classes it holds the object; more than one in a base that is a template
  std::vector<size_t> entityOfAccessPoint;      // by function that hands an entity out, or SIZE_MAX
  std::vector<std::vector<size_t>> entitiesOfType;  // by type, harmless ones too

  std::vector<Registration> registrations;
  std::vector<Collaborator> collaborators;

  bool inTests(Place place) const { return testFile[place.file]; }
  // Is of what stands there told at all? Of tests and of examples it is not, but where they spoil other tests.
  bool isTold(Place place) const { return !place.known() || (!testFile[place.file] && !exampleFile[place.file]); }
  // In what nobody rewrites: tests, and what a tool has written.
  bool isAside(Place place) const { return testFile[place.file] || program.files[place.file].generated; }
  bool isAtWork(FunctionIndex f) const { return f == kNone || atWork[f]; }
  // Is there a singleton of the class?
  bool isSingleton(TypeIndex type) const;
};

// Which files are tests: by the configuration's patterns, or by the test library that they import.
std::vector<bool> testFilesOf(const Program& program, const Config& config);

// A program made ready for being judged: what all checks ask for, worked out once.
class Judging {
 public:
  Judging(const Program& program, const Origins& origins, const Survey& survey, const Config& config);
  Judging(const Judging&) = delete;
  Judging& operator=(const Judging&) = delete;

 private:
  std::vector<bool> testFile_;
  Threads threads_;
  Reaching reaching_;
  Locks locks_;

 public:
  Subject subject;
};

using CheckFunction = void (*)(const Subject& subject, std::vector<Finding>& out);
struct Check {
  CheckInfo info;
  CheckFunction run;
};

// The explicit table of checks, in the order of the families.
std::span<const Check> checks();
const CheckInfo* checkById(std::string_view id);

// Why the check says nothing in a language with those guarantees; empty: it applies.
std::string_view whyNot(const CheckInfo& info, const Guarantees& guarantees);

// What the survey as a whole says of one entity: keep, steady …, with reasons.
struct Judgement {
  Advice advice = Advice::Keep;
  bool isSink = false;  // written to, never asked
  std::vector<std::string> reasonsFor;
  std::vector<std::string> reasonsAgainst;
};

struct StaleAcceptance {
  std::string where;   // "file:line" or the ledger's row
  std::string check;
  std::string reason;
};

struct Assessment {
  std::vector<Finding> findings;        // by risk, highest first
  std::vector<Judgement> judgements;    // parallel to the survey's entities
  std::vector<StaleAcceptance> stale;   // acceptances that match nothing
};

// What to mend first: one row for each thing that findings are about.
// risk: its highest; weight: that, and a quarter of each of the others.
struct WorkItem {
  std::string subject;
  int risk = 0;
  double weight = 0;
  size_t findings = 0;
  Advice advice = Advice::Keep;  // of the riskiest
  std::string why;               // "Dangling subscriber (57), Lost update (30) and 2 more"
};
// Findings that are accepted do not count. By risk, then by weight, then by name.
std::vector<WorkItem> orderOfWork(const Assessment& assessment);

// `seen`: what probes saw of findings.
Assessment assessProgram(const Subject& subject, const std::vector<Seen>& seen = {});

// Shared by the checks' files.
Finding makeFinding(const Subject& subject, const CheckInfo& info, size_t entity, Sureness sureness);
const CheckInfo& infoOf(std::string_view id);
// The move that mends it, in the forms of a language (none: of any).
std::string moveText(const CheckInfo& info, const Guarantees* guarantees = nullptr);
// Is it written to by its consumers, and never asked anything?
bool isSink(const Subject& subject, const Entity& entity);
// Distinct classes (or files, for free functions) outside tests that reach the entity. `counts`: which of its consumers are looked at; null: all.
std::vector<std::string> consumerClasses(const Subject& subject, const Entity& entity, const std::function<bool(const Consumer&)>& counts = nullptr);

}  // namespace elmcart
