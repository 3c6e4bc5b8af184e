// Keeps a fault inside a parser to the file that it was reading.
//
// Parsers and their scanners are C code that others wrote; where one of them reads
// through a bad pointer, the file at hand is left unread and the run goes on.
#pragma once

#include <string_view>

namespace elmcart {

// While one is there, a process that dies of a fault or an abort says on stderr what this
// thread worked on. `path` must live as long as it does.
struct WorkingOn {
  WorkingOn(const char* doing, std::string_view path);
  ~WorkingOn();
  WorkingOn(const WorkingOn&) = delete;
  WorkingOn& operator=(const WorkingOn&) = delete;

  const char* doing;
  std::string_view path;
  const WorkingOn* outer;
};

// Calls work(argument); false when it was ended by SIGSEGV or SIGBUS. What it has
// allocated until then is in an unknown state and must not be touched again. `work` may
// call C code only: nothing is unwound. Safe to use on several threads at once; a fault
// outside of such a call goes where it would have gone.
bool endsWithoutFault(void (*work)(void*), void* argument);

}  // namespace elmcart
