// Locks that keep nobody out, doors that may hand out nothing, orders of one file.
#include <map>
#include <mutex>
#include <string>

namespace office {

// The lock is the caller's own.
class CargoScale {  // entity: singleton CargoScale lazy lock
 public:
  static CargoScale* get() {
    std::mutex mutex;
    std::lock_guard<std::mutex> lock(mutex);  // finding: thread.wrong-lock
    if (scale_ == nullptr) scale_ = new CargoScale;  // finding: init.lazy-needless
    return scale_;
  }
  void weigh(double tons) { load_ = tons; }
  CargoScale(const CargoScale&) = delete;

 private:
  CargoScale() = default;
  static CargoScale* scale_;
  double load_ = 0;
};

CargoScale* CargoScale::scale_ = nullptr;

// Open to subclasses.
class Harbourmaster {  // entity: singleton Harbourmaster lazy language
 public:
  static Harbourmaster& get() {
    static Harbourmaster master;
    return master;
  }
  void rename(const std::string& to) { name_ = to; }
  Harbourmaster(const Harbourmaster&) = delete;

 protected:
  Harbourmaster() = default;  // finding: single.subclassable

 private:
  std::string name_;
};

// Nothing before it is opened.
class RadarPlot {  // entity: singleton RadarPlot lazy none
 public:
  static void open() { plot_ = new RadarPlot; }
  static RadarPlot* get() { return plot_; }  // finding: single.may-return-nothing
  void echo() { ++echoes_; }
  RadarPlot(const RadarPlot&) = delete;

 private:
  RadarPlot() = default;
  static RadarPlot* plot_;
  int echoes_ = 0;
};

RadarPlot* RadarPlot::plot_ = nullptr;

// Made above what its constructor needs.
std::map<std::string, int>& offsets();

class TideClock {
 public:
  TideClock();
  void shift(int by) { offset_ = by; }

 private:
  int offset_;
};

TideClock clock;  // entity: shared-instance clock eager language // finding: init.order-within-class
std::map<std::string, int> offsetTable = {{"north", 2}};  // harmless: offsetTable

TideClock::TideClock() : offset_(offsetTable["north"]) {}

}  // namespace office
