// Reading, adding and writing back are three steps: two at once count as one.
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
  void weigh() {
    int before = weighed_;
    std::this_thread::yield();  // the crate swings in
    weighed_ = before + 1;
  }
  int weighed() const { return weighed_; }

 private:
  CargoScale() = default;
  int weighed_ = 0;
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
