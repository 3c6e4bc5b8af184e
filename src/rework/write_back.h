// Bringing a reworked tree home: file by file through a temporary file and a
// rename, with a journal in <root>/.elmcart, so that an interruption at any
// moment leaves each file whole and the job can be finished or taken back.
//
//   .elmcart/journal.new   being prepared; of no account
//   .elmcart/journal       a job under way: manifest.json, before/, after/
//   .elmcart/last          the last job that was finished; what --undo takes back
#pragma once

#include <map>
#include <string>
#include <vector>

#include "base/result.h"

namespace elmcart {

struct WriteBackFile {
  std::string path;    // relative to the root
  std::string before;  // what the file must hold now
  std::string after;
  bool isNew = false;  // it must not be there yet, and taking it back takes it away
};

struct WriteBackDone {
  std::vector<std::string> files;
  std::string what;  // "written", "taken back"
};

// Is a job under way that was interrupted?
bool hasInterruptedJob(const std::string& root);

// Fails, with nothing changed, when a job is under way or a file is not what it was.
Result<WriteBackDone> writeBack(const std::string& root, const std::vector<WriteBackFile>& files);
// Finishes the job under way, in the direction it was going.
Result<WriteBackDone> resumeJob(const std::string& root);
// Takes back the job under way, or else the last one.
Result<WriteBackDone> undoJob(const std::string& root);

}  // namespace elmcart
