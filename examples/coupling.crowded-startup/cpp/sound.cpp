// Each service puts itself on a list whose order is told where the list is made.
#include <functional>
#include <vector>

class Opening {
 public:
  void add(std::function<void()> service) { services_.push_back(service); }
  void open() {
    for (auto& service : services_) service();
  }

 private:
  std::vector<std::function<void()>> services_;
};

class Tides {
 public:
  void start() { ++started_; }

 private:
  int started_ = 0;
};

int main() {
  Tides tides;
  Opening opening;
  opening.add([&] { tides.start(); });
  opening.open();
}
