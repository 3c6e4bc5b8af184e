// What the checks say: findings with evidence, sureness, risk and advice.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "survey/entity.h"

namespace elmcart {

enum class Sureness : uint8_t { Certain, Likely, Possible };
std::string_view surenessText(Sureness sureness);

// ByHand: no move does it; what to do is told with the check.
enum class Advice : uint8_t { Keep, SafeInit, Enforce, Inject, Wrap, MakeLocal, Synchronize, Unregister, InjectCollaborator, Own, ByHand };
std::string_view adviceText(Advice advice);
std::string_view adviceMeaning(Advice advice);

struct Evidence {
  Place place;
  std::string note;
};

// risk = bad x sure x reach, on a scale of 0 to 100.
//   bad    0..100, how much harm the fault does when it strikes: fixed a check
//   sure   1 certain, 0.8 likely, 0.25 possible
//   reach  0.5 + 0.5 * min(1, log2(1 + sites) / 6): one half for a fault nobody
//          reaches, one for 63 sites or more
struct Risk {
  int bad = 0;
  double sure = 1;
  double reach = 0.5;
  size_t sites = 0;
  int value() const;
  void setSites(size_t count);  // and the reach that follows from them
};
double sureFactor(Sureness sureness);
double reachFactor(size_t sites);

// Of a note that tells a step of one of two threads (or calls) at once
// ("thread 1: …", "call 2: …"): 1 or 2; else 0. `rest`: the note without that.
int laneOf(std::string_view note, std::string_view* rest = nullptr);

// Places that are shown; the rest are counted in the last of them.
inline constexpr size_t kMostEvidence = 12;

// A race that was run for a finding.
struct Seen {
  std::string fingerprint;   // of the finding
  std::string check, entity; // for who reads the file
  std::string race;          // "creation of TideTable"
  std::string code;          // of the functions that were run, at that time: 16 hexadecimal digits
  int runs = 0, happened = 0, threads = 0, gap = 0;
  std::string move;          // whose form was run too; empty: none was
  int soundRuns = 0, soundHappened = 0;
  bool old = false;          // the code has changed since: it says nothing any more
};

struct Finding {
  std::string id;               // "check:entity", with a number when there are several
  std::string check;            // "thread.unguarded-creation"
  size_t entity = SIZE_MAX;     // position in the survey; SIZE_MAX: about a class that is no entity
  std::string subject;          // the entity's or class's id
  Place place;
  Sureness sureness = Sureness::Certain;
  Risk risk;
  std::string message;
  std::vector<std::string> members;  // of the object, when it is about them and not about the slot
  std::vector<Evidence> evidence;
  Advice advice = Advice::Inject;
  std::vector<std::string> reasonsFor;
  std::vector<std::string> reasonsAgainst;
  std::string acceptedBecause;  // empty: not accepted
  Seen seen;                    // what running it showed (evidence.h); no runs: nobody ran it
  // The same for the same finding after unrelated lines have moved: made of the
  // check, the subject, the file, the function around the place, and a number
  // where that is not enough. 16 hexadecimal digits.
  std::string fingerprint;

  // The risk follows.
  void setSureness(Sureness sure);
};

// What a check is: shown by `explain`.
struct CheckInfo {
  std::string_view id;
  std::string_view title;
  int bad;
  std::string_view what;
  std::string_view why;
  std::string_view keepWhen;
  std::string_view move;
};

}  // namespace elmcart
