// Where the parser runtime takes its memory from while a file is read: a heap
// of the thread's own, given back as a whole when the file is done. Walking a
// grammar tree once more, only to free it node by node, costs a tenth of parsing.
#pragma once

namespace elmcart {

// Holds the heap for as long as it lives. One a thread at a time; trees and
// parsers made meanwhile must not outlive it.
class ParseMemory {
 public:
  ParseMemory();
  ~ParseMemory();
  ParseMemory(const ParseMemory&) = delete;
  ParseMemory& operator=(const ParseMemory&) = delete;

  // Is there one on this thread? Then no tree needs deleting.
  static bool held();
};

}  // namespace elmcart
