// A harness is a small program that makes a fault happen, or shows that it does
// not: it calls the project's code from several threads or tasks at once and
// writes down what it saw. A harness writer says how that is written, built and
// run in one language; it does not know which check asks.
//
// A harness writes events, one a line: a letter, the thread's number, nanoseconds
// since the start, and a value, with one blank between them:
//   c  a thread calls the function        g  … got an object: the value tells which
//   i  it has read, and is about to write  o  … writes now: the value is what it writes, where that is a number
//   m  a constructor runs                  x  the call failed; the value is the message
//   d  the object was told its end         h  it is called all the same
// It reads from its environment: ELMCART_PROBE_EVENTS, the file for them;
// ELMCART_PROBE_THREADS; ELMCART_PROBE_GAP, milliseconds between reading and writing; and ELMCART_PROBE_RUN, the
// number of the run, from 0 on. Of an order a sanitizer tells, and no events are written.
#pragma once

#include <initializer_list>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "base/result.h"
#include "languages/changes.h"
#include "languages/writer.h"

namespace elmcart {

enum class ProbeScenario : uint8_t {
  Creation,  // several threads ask for an object that is made on first use
  Change,    // several threads change its state
  Ended,     // an object ends, and whoever listed it calls it
  Order,     // what is made before main, in both orders in which files can be linked
};

struct ProbeParameter {
  std::string type;         // as written, without arguments; empty: it has none
  bool mayBeNull = false;   // a pointer, or said so
  bool isArray = false;     // of such
  bool hasDefault = false;
};

// A function or class of the project, as a harness has to know it.
struct ProbeFunction {
  Spot at;                  // not known: there is none
  std::string name;         // plain
  std::string qualified;    // with "::"
  Spot owner;               // the class it is a member of; not known: none
  std::string ownerName;    // qualified
  bool isStatic = false;
  bool isGetter = false;    // it is named, not called
  bool isFactory = false;   // it runs when an object of its class is asked for
  bool suspends = false;    // it may wait in its middle
  bool returns = false;     // something
  std::vector<ProbeParameter> parameters;
};

struct ProbePlan {
  ProbeScenario scenario = ProbeScenario::Creation;
  std::string root;              // the copy of the tree in which it is written, absolute
  std::string file;              // where the harness stands or what it names first; relative
  ProbeFunction call;            // what each thread calls; of Ended: what calls all that are listed
  ProbeFunction reach;           // how the object is got at on which it is called, or …
  std::string slot;              // … the variable that holds it, qualified; both unknown: one is made, or none is needed
  std::string slotFile;          // where it is declared
  std::string slotOwner;         // the class of which that is a field; empty: none
  std::vector<Spot> values;      // what is written, between whose reading and writing there is to be time
  std::vector<Spot> made;        // constructors that are to tell
  ProbeFunction subscriber;      // of Ended: the constructor of what is listed (at: its class, where it has none)
  ProbeFunction ends;            // … and what ends it; not known: its destructor
  ProbeFunction heard;           // … and what is called on it
  std::vector<std::string> files;   // all files of the tree in that language
  // Every file that declares something the harness names, `file` first.
  std::vector<std::string> declaring() const;
  std::string classPath;            // of the configuration
};

// A file that is written; what is there is kept, and this stands behind it.
struct ProbeFile {
  std::string path;  // relative to the copy
  std::string text;
};

struct Harness {
  std::vector<FileEdit> edits;
  std::vector<ProbeFile> files;
  std::vector<std::string> build;   // commands, run in the copy
  std::string run;
  std::vector<std::string> environment;  // "NAME=value", for building and running
  std::string needs;                // the program that has to be there
  std::string package;              // what to install for it
  std::string shown;                // the file in which the harness stands
  std::string missing;              // what could not be made up, and stands there as FILL_IN; empty: nothing
};

// What of a piece of shared state is written down while the project's own tests or programs run.
// Each process writes one file into the folder ELMCART_PROBE_EVENTS, called by its number. Lines:
//   s SITE THREAD COUNT FIRST LAST   a place was passed; nanoseconds since 1970
//   m THREAD TIME IDENTITY           an object was made; identity 0: which is not known
//   d THREAD TIME IDENTITY           an object was told its end
struct WatchSite {
  Spot at;               // an expression that fetches the object, or makes one
  int number = 0;
  bool makes = false;
};
struct WatchPlan {
  std::string root;      // the copy of the tree, absolute
  Spot type;             // the class, in whose file what counts may stand; not known: there is none
  std::string typeName;  // qualified
  Spot home;             // where what is watched is declared
  std::vector<WatchSite> sites;
  std::vector<Spot> made, ends;  // constructors, and what ends objects
};

class HarnessWriter {
 public:
  explicit HarnessWriter(WriterFiles& files) : files_(files) {}
  virtual ~HarnessWriter() = default;
  // Fails with the reason where one cannot be written.
  virtual Result<Harness> write(const ProbePlan& plan) = 0;
  // A program that measures what an access costs: the plan's function, the forms in which the language makes one
  // object soundly, and a field that was handed in. It writes a line for each round into ELMCART_PROBE_EVENTS:
  //   t THREADS NANOSECONDS FORM
  // and of the function's first call in the process: "f 1 NANOSECONDS as it is". It reads ELMCART_PROBE_ROUNDS and
  // ELMCART_PROBE_THREADS, the most of them; from one on they are doubled.
  virtual Result<Harness> cost(const ProbePlan&) { return Error{"", "measuring is not written yet in this language"}; }
  // Only the edits, files and environment of it are used: the project's own commands build and run it.
  virtual Result<Harness> watch(const WatchPlan&) { return Error{"", "watching is not written yet in this language"}; }

 protected:
  // What the language's code writes in front of a value so that there is time before it is written; a bracket follows behind it.
  virtual std::string gapCall() const = 0;
  // A value for a parameter that means nothing; empty: none can be made up, and FILL_IN stands there.
  virtual std::string madeUp(const ProbeParameter& parameter) const = 0;
  // What a function is called that belongs to no object.
  virtual std::string nameOf(const ProbePlan& plan, const ProbeFunction& function) const = 0;
  // The variable that holds the object.
  virtual std::string slotName(const ProbePlan& plan) const = 0;
  // An expression that makes an object of the function's class.
  virtual std::string newObject(const ProbePlan& plan, const ProbeFunction& function) const = 0;
  // A statement that keeps the object under the name kObject; empty: it is fetched at each call.
  virtual std::string keepObject(const ProbeFunction& function, const std::string& object) const = 0;

  // What stands between an object and its member.
  virtual std::string_view memberMark() const { return "."; }

  static constexpr std::string_view kObject = "elmcartObject";
  // How what the plan calls is called; `before`: what comes first.
  std::string callText(const ProbePlan& plan, std::string& missing, std::string& before) const;
  // The arguments, in brackets; `missing` becomes the reason where there are none.
  std::string inBrackets(const ProbeFunction& function, std::string& missing) const;

  std::string_view text(const LoweredFile& file) { return files_.text(file); }
  const SyntaxTree& tree(Spot spot) { return files_.tree(*spot.file); }
  // Puts something around an expression.
  static void around(Spot expression, const std::string& before, const std::string& behind, std::vector<FileEdit>& edits);
  // Puts time in front of each value that is written; x++ and x += v become x = gap(x + v).
  void widen(const ProbePlan& plan, std::vector<FileEdit>& edits);
  // The last part of a qualified name.
  static std::string plain(std::string_view qualified) { return std::string(qualified.substr(qualified.find_last_of(":.\\") + 1)); }
  // A qualified name with this between its parts.
  static std::string joined(std::string_view qualified, std::string_view separator);
  // Puts a statement in front of the others of a function with a body; `behind`: how a first call that stays first begins.
  void atBegin(Spot function, const std::string& statement, std::vector<FileEdit>& edits, std::initializer_list<std::string_view> behind = {});
  // Puts a member behind the others of a class that ends with a bracket.
  bool atEndOf(Spot type, const std::string& member, std::vector<FileEdit>& edits);
  static std::string replaced(std::string text, std::string_view what, std::string_view by);

  WriterFiles& files_;
};

}  // namespace elmcart
