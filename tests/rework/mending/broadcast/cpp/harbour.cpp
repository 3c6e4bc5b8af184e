#include <iostream>
#include <string>

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

// Opens the harbour.
void open(const std::string& day) {
  std::cout << "opening\n";
  Tides::get().start(day);
  Berths::get().start();
  Pilots::get().start();
  std::cout << "open\n";
}

}  // namespace harbour

int main() { harbour::open("Monday"); }
