#include <map>
#include <memory>
#include <string>

class Crane {
 public:
  explicit Crane(std::string name) : name_(std::move(name)) {}
  void lift() { ++lifts_; }

 private:
  std::string name_;
  int lifts_ = 0;
};

class CraneYard {
 public:
  static Crane& crane(const std::string& name) {
    auto found = cranes_.find(name);  // finding: thread.check-then-act
    if (found == cranes_.end()) found = cranes_.emplace(name, std::make_unique<Crane>(name)).first;
    return *found->second;
  }

 private:
  static std::map<std::string, std::unique_ptr<Crane>> cranes_;
};
std::map<std::string, std::unique_ptr<Crane>> CraneYard::cranes_;  // entity: registry cranes_ eager language
