#include <functional>
#include <iostream>
#include <string>
#include <vector>

namespace harbour {

class Tides {
 public:
  static Tides& get() {
    static Tides tides;
    return tides;
  }
  Tides(const Tides&) = delete;
  void start(const std::string& day) { std::cout << "tides " << ++started_ << day << "\n"; }

 private:
  Tides() = default;
  int started_ = 0;
};

class Berths {
 public:
  static Berths& get() {
    static Berths berths;
    return berths;
  }
  Berths(const Berths&) = delete;
  void start() { std::cout << "berths " << ++started_ << "\n"; }

 private:
  Berths() = default;
  int started_ = 0;
};

class Pilots {
 public:
  static Pilots& get() {
    static Pilots pilots;
    return pilots;
  }
  Pilots(const Pilots&) = delete;
  void start() { std::cout << "pilots " << ++started_ << "\n"; }

 private:
  Pilots() = default;
  int started_ = 0;
};

// Tells those who listen, in the order in which they came, that the program starts.
class StartUp {
 public:
  void add(std::function<void()> listener) { listeners_.push_back(std::move(listener)); }
  void announce() const {
    for (const auto& listener : listeners_) listener();
  }

 private:
  std::vector<std::function<void()>> listeners_;
};

// Opens the harbour.
void open(const std::string& day) {
  std::cout << "opening\n";
  StartUp startUp;
  startUp.add([&] { Tides::get().start(day); });
  startUp.add([&] { Berths::get().start(); });
  startUp.add([&] { Pilots::get().start(); });
  startUp.announce();
  std::cout << "open\n";
}

}  // namespace harbour

int main() { harbour::open("Monday"); }
