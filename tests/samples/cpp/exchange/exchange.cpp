// An object that others may replace: whoever fetches it takes the lock as well, or not.
#include <mutex>

class Warner {  // entity: singleton Warner lazy language  // finding: single.open-constructor single.copyable
 public:
  virtual ~Warner() = default;
  virtual void warn(const char* text) { count_ += text[0]; }
  static void handle(const char* text);
  static Warner* set(Warner* next);
  static Warner* get() { return current_; }  // finding: thread.mixed-guard

 private:
  static Warner* standard();
  static Warner* current_;
  static std::mutex gate_;
  int count_ = 0;
};

Warner* Warner::current_ = Warner::standard();  // entity: ambient current_ elsewhere none
std::mutex Warner::gate_;  // harmless: gate_

void Warner::handle(const char* text) {
  std::lock_guard<std::mutex> lock(gate_);
  current_->warn(text);
}

Warner* Warner::set(Warner* next) {
  std::lock_guard<std::mutex> lock(gate_);
  Warner* old = current_;
  current_ = next;
  return old;
}

Warner* Warner::standard() {
  static Warner warner;
  return &warner;
}

// The same, with the lock taken everywhere.
class Pilot {
 public:
  virtual ~Pilot() = default;
  virtual void call() { ++calls_; }
  static Pilot* set(Pilot* next);
  static void wake();

 private:
  static Pilot* current_;
  static std::mutex gate_;
  int calls_ = 0;
};

Pilot* Pilot::current_ = nullptr;  // entity: ambient current_ elsewhere none
std::mutex Pilot::gate_;  // harmless: gate_

Pilot* Pilot::set(Pilot* next) {
  std::lock_guard<std::mutex> lock(gate_);
  Pilot* old = current_;
  current_ = next;
  return old;
}

void Pilot::wake() {
  std::lock_guard<std::mutex> lock(gate_);
  if (current_) current_->call();
}
