// Classes of static members, class-level fields, keyed tables of instances.
#include <map>
#include <memory>
#include <string>

class Tariff {  // entity: static-holder Tariff eager language
 public:
  static void set(int cents) { cents_ = cents; }
  static int of(int tons) { return tons * cents_; }

 private:
  static int cents_;
};
int Tariff::cents_ = 0;

class Launch {
 public:
  Launch() { ++made_; }
  static int made() { return made_; }
  void go() { trips_ += 1; }

 private:
  static int made_;
  int trips_ = 0;
};
int Launch::made_ = 0;  // entity: static-field made_ eager language

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
    auto found = cranes_.find(name);
    if (found == cranes_.end()) found = cranes_.emplace(name, std::make_unique<Crane>(name)).first;
    return *found->second;
  }

 private:
  static std::map<std::string, std::unique_ptr<Crane>> cranes_;
};
std::map<std::string, std::unique_ptr<Crane>> CraneYard::cranes_;  // entity: registry cranes_ eager language

void work() {
  Launch launch;
  launch.go();
  Tariff::set(3);
  CraneYard::crane("east").lift();
}
