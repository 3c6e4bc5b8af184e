// A lock at each access.
#include <mutex>
#include <thread>
#include <vector>

class CargoScale {
 public:
  static CargoScale& scale() {
    static CargoScale instance;
    return instance;
  }
  CargoScale(const CargoScale&) = delete;
  void weigh(int crate) {
    std::lock_guard<std::mutex> hold(weighing_);
    crates_.push_back(crate);
  }

 private:
  CargoScale() = default;
  std::mutex weighing_;
  std::vector<int> crates_;
};

void unload() {
  std::thread crane([] { CargoScale::scale().weigh(4); });
  CargoScale::scale().weigh(3);
  crane.join();
}
