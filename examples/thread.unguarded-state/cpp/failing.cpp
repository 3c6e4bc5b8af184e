// Two cranes put crates on the list at once.
#include <thread>
#include <vector>

class CargoScale {
 public:
  static CargoScale& scale() {
    static CargoScale instance;
    return instance;
  }
  CargoScale(const CargoScale&) = delete;
  void weigh(int crate) { crates_.push_back(crate); }

 private:
  CargoScale() = default;
  std::vector<int> crates_;
};

void unload() {
  std::thread crane([] { CargoScale::scale().weigh(4); });
  CargoScale::scale().weigh(3);
  crane.join();
}
