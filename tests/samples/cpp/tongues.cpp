// A class of this file alone: all that call it hold the lock, but its constructor, where nobody shares it yet.
#include <mutex>
#include <string>
#include <thread>
#include <vector>

namespace {

std::mutex& tongueLock() {
  static std::mutex* lock = new std::mutex();  // harmless: lock
  return *lock;
}

class Tongues {  // entity: singleton Tongues lazy language
 public:
  Tongues() { refresh(); }
  const std::string& current() {
    if (stale_) refresh();
    return current_;
  }
  void choose(const std::string& name) {
    chosen_ = name;
    stale_ = true;
  }
  void refresh() {
    current_ = "the " + chosen_ + current_;  // near: thread.lost-update  // near: thread.unguarded-state
    stale_ = false;
  }

 private:
  std::string chosen_, current_;
  bool stale_ = true;
};

Tongues& tongues() {
  static Tongues* all = new Tongues();
  return *all;
}

}  // namespace

std::string said(const std::string& word) {
  std::lock_guard<std::mutex> held(tongueLock());
  return tongues().current() + word;
}

void speak(const std::string& name) {
  std::lock_guard<std::mutex> held(tongueLock());
  tongues().choose(name);
}

void speakMuch() {
  std::vector<std::thread> all;
  for (int i = 0; i < 3; ++i) all.emplace_back([] { said("well"); });
  for (std::thread& one : all) one.join();
}
