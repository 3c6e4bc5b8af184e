// What all share, changed in one place under a lock that each has for itself and that is there for something else;
// and a slot that is filled by the constructor of whoever starts the thread.
#include <map>
#include <mutex>
#include <string>
#include <thread>

class Waybill {
 public:
  Waybill() { all_[name_] = this; }
  ~Waybill() {
    std::lock_guard<std::mutex> held(saving_);
    all_.erase(name_);
  }
  void rename(const std::string& name) { all_[name] = this; }  // finding: thread.unguarded-state
  void save() {
    std::lock_guard<std::mutex> held(saving_);
    all_.erase(name_);
    name_ = "saved";
  }
  static Waybill* named(const std::string& name) { return all_[name]; }

 private:
  std::string name_;
  std::mutex saving_;
  static std::map<std::string, Waybill*> all_;
};
std::map<std::string, Waybill*> Waybill::all_;  // entity: registry all_ eager language

class Sounder {  // entity: singleton Sounder lazy none  // finding: single.copyable
 public:
  static Sounder* instance() {
    if (!slot_) slot_ = new Sounder;  // finding: thread.unguarded-creation
    return slot_;
  }
  void scan() { ++scans_; }

 private:
  Sounder() = default;
  int scans_ = 0;
  static Sounder* slot_;
};
Sounder* Sounder::slot_ = nullptr;

class Turnstile {
 public:
  Turnstile() { Sounder::instance()->scan(); }  // finding: coupling.hidden-dependency
  void watch() { thread_ = std::thread([] { Sounder::instance()->scan(); }); }
  ~Turnstile() { thread_.join(); }

 private:
  std::thread thread_;
};

void sailToday() {
  Waybill first, second;
  first.save();
  Turnstile turnstile;
  turnstile.watch();
}

// Each caller's own crew is no shared one.
class Crew {  // entity: singleton Crew lazy language  // finding: single.open-constructor single.copyable
 public:
  static Crew& shared() {
    static Crew crew;
    return crew;
  }
  void enlist(int hand) { hands_.push_back(hand); }  // finding: thread.unguarded-state lifetime.grows-forever
  int first() const { return hands_.empty() ? 0 : hands_.front(); }

 private:
  std::vector<int> hands_;
};

int enlistOwn(int hand) {
  Crew own;  // finding: single.second-creation
  own.enlist(hand);
  return own.first();
}

void watchCrew() {
  std::thread([] { Crew::shared().first(); }).detach();
}
