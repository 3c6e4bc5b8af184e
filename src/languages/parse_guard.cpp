#include "languages/parse_guard.h"

#include <csetjmp>
#include <csignal>
#include <mutex>

namespace elmcart {
namespace {

thread_local sigjmp_buf* wayOut = nullptr;
struct sigaction beforeSegv, beforeBus;

void onFault(int signal, siginfo_t* how, void*) {
  if (wayOut) siglongjmp(*wayOut, 1);
  // Not ours: whoever was there before gets it when the instruction runs again, or
  // when it is sent again.
  sigaction(signal, signal == SIGSEGV ? &beforeSegv : &beforeBus, nullptr);
  if (how->si_code <= 0) raise(signal);
}

void install() {
  struct sigaction action = {};
  action.sa_sigaction = onFault;
  action.sa_flags = SA_SIGINFO | SA_ONSTACK;
  sigemptyset(&action.sa_mask);
  sigaction(SIGSEGV, &action, &beforeSegv);
  sigaction(SIGBUS, &action, &beforeBus);
}

}  // namespace

bool endsWithoutFault(void (*work)(void*), void* argument) {
  static std::once_flag installed;
  std::call_once(installed, install);
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
