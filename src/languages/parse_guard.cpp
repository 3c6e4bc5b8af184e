#include "languages/parse_guard.h"

#include <unistd.h>

#include <csetjmp>
#include <csignal>
#include <memory>
#include <mutex>

namespace elmcart {
namespace {

thread_local sigjmp_buf* wayOut = nullptr;
thread_local const WorkingOn* working = nullptr;
struct sigaction beforeSegv, beforeBus, beforeAbort;

void write(std::string_view text) { [[maybe_unused]] ssize_t written = ::write(2, text.data(), text.size()); }

void onFault(int signal, siginfo_t* how, void*) {
  if (wayOut && signal != SIGABRT) siglongjmp(*wayOut, 1);
  write("elmcart: inner error: ended by signal ");
  write(signal == SIGSEGV ? "SIGSEGV" : signal == SIGBUS ? "SIGBUS" : "SIGABRT");
  if (working) {
    write(" while ");
    write(working->doing);
    write(" ");
    write(working->path);
  }
  write("; please report it with the command and `elmcart --version`\n");
  // Not ours: whoever was there before gets it when the instruction runs again, or
  // when it is sent again.
  sigaction(signal, signal == SIGSEGV ? &beforeSegv : signal == SIGBUS ? &beforeBus : &beforeAbort, nullptr);
  if (how->si_code <= 0) raise(signal);
}

void install() {
  struct sigaction action = {};
  action.sa_sigaction = onFault;
  action.sa_flags = SA_SIGINFO | SA_ONSTACK;
  sigemptyset(&action.sa_mask);
  sigaction(SIGSEGV, &action, &beforeSegv);
  sigaction(SIGBUS, &action, &beforeBus);
  sigaction(SIGABRT, &action, &beforeAbort);
}

void installOnce() {
  static std::once_flag installed;
  std::call_once(installed, install);
}

// A stack that has run over is no place for a handler to run on.
struct OtherStack {
  OtherStack() : room(new char[kSize]) {
    stack_t stack = {};
    stack.ss_sp = room.get();
    stack.ss_size = kSize;
    set = sigaltstack(nullptr, &before) == 0 && (before.ss_flags & SS_DISABLE) && sigaltstack(&stack, nullptr) == 0;
  }
  ~OtherStack() {
    if (set) sigaltstack(&before, nullptr);
  }
  static constexpr size_t kSize = 1 << 16;
  std::unique_ptr<char[]> room;
  stack_t before = {};
  bool set = false;
};

}  // namespace

WorkingOn::WorkingOn(const char* what, std::string_view where) : doing(what), path(where), outer(working) {
  installOnce();
  thread_local OtherStack stack;
  working = this;
}

WorkingOn::~WorkingOn() { working = outer; }

bool endsWithoutFault(void (*work)(void*), void* argument) {
  installOnce();
  sigjmp_buf here;
  sigjmp_buf* volatile outer = wayOut;
  if (sigsetjmp(here, 1) != 0) {
    wayOut = outer;
    return false;
  }
  wayOut = &here;
  work(argument);
  wayOut = outer;
  return true;
}

}  // namespace elmcart
