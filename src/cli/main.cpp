#include <fmt/format.h>
#include <pthread.h>
#include <unistd.h>

#include <csignal>
#include <exception>
#include <iostream>
#include <thread>

#include "base/text.h"
#include "cli/cli.h"
#include "confirm/scratch.h"

namespace elmcart::cli {

namespace {

void printHelp() {
  std::cout << "Elm Cart finds singletons and other global shared state, judges it, and reworks it\n"
               "toward dependency injection step by step under the project's own tests.\n\n"
               "usage: elmcart COMMAND [OPTIONS] …\n\n";
  for (const Command& command : commands()) std::cout << fmt::format("  {:<9} {}\n", command.name, command.answers);
  std::cout << "\nelmcart COMMAND --help tells more about each; elmcart --version the version.\n"
               "exit codes: 0 done, 1 a gate or comparison failed, 2 wrong use, 3 something could\n"
               "not be read, 4 an inner error\n";
}

int dispatch(const std::vector<std::string>& arguments, const Interruption& interruption) {
  if (arguments.empty() || arguments[0] == "--help" || arguments[0] == "-h" || arguments[0] == "help") {
    printHelp();
    return arguments.empty() ? kWrongUse : kDone;
  }
  if (arguments[0] == "--version") {
    std::cout << "elmcart " ELMCART_VERSION "\n";
    return kDone;
  }
  std::vector<std::string> names;
  for (const Command& command : commands()) {
    names.emplace_back(command.name);
    if (command.name == arguments[0]) return command.run(Context{{arguments.begin() + 1, arguments.end()}, interruption}, command);
  }
  std::vector<std::string> nearest = nearestNames(arguments[0], names);
  throw Stop{kWrongUse, "there is no command '" + arguments[0] + "'" + (nearest.empty() ? "; elmcart --help lists them" : "; did you mean " + joinWith(nearest, " or ") + "?")};
}

// Threads that are made from here on inherit that the signals wait for this one.
void watchSignals(const Interruption& interruption) {
  sigset_t signals;
  sigemptyset(&signals);
  for (int signal : {SIGINT, SIGTERM, SIGHUP}) sigaddset(&signals, signal);
  pthread_sigmask(SIG_BLOCK, &signals, nullptr);
  std::thread([signals, interruption] {
    for (int signal = 0; sigwait(&signals, &signal) == 0;) {
      bool first = interruption.asked->exchange(signal) == 0;
      if (first && interruption.seen->load()) continue;
      removeOwnScratch();
      _exit(128 + signal);
    }
  }).detach();
}

}  // namespace
}  // namespace elmcart::cli

int main(int argc, char** argv) {
  using namespace elmcart::cli;
  std::signal(SIGPIPE, SIG_IGN);
  Interruption interruption;
  watchSignals(interruption);
  try {
    return dispatch(std::vector<std::string>(argv + 1, argv + argc), interruption);
  } catch (const Stop& stop) {
    if (!stop.message.empty()) warn(stop.message);
    return stop.code;
  } catch (const std::exception& error) {
    warn(fmt::format("inner error: {}; please report it with the command and `elmcart --version`", error.what()));
    return kInnerError;
  }
}
