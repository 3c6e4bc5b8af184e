// One step that nothing comes between.
#include <atomic>
#include <cstdio>
#include <thread>
#include <vector>

class CargoScale {
 public:
  static CargoScale& scale() {
    static CargoScale instance;
    return instance;
  }
  CargoScale(const CargoScale&) = delete;
  void weigh() { weighed_.fetch_add(1); }
  int weighed() const { return weighed_.load(); }

 private:
  CargoScale() = default;
  std::atomic<int> weighed_{0};
};

int main() {
  std::vector<std::thread> cranes;
  for (int i = 0; i < 4; ++i)
    cranes.emplace_back([] {
      for (int crate = 0; crate < 20000; ++crate) CargoScale::scale().weigh();
    });
  for (std::thread& crane : cranes) crane.join();
  std::printf("%d of 80000 weighed\n", CargoScale::scale().weighed());
  return CargoScale::scale().weighed() == 80000 ? 0 : 1;
}
