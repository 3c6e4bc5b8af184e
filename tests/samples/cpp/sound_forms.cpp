#include <atomic>
#include <memory>
#include <mutex>
#include <vector>

// An atomic slot, read with acquire and stored with release.
class RadarPlot {  // entity: singleton RadarPlot lazy double-check
 public:
  static RadarPlot* plot() {
    RadarPlot* seen = slot_.load(std::memory_order_acquire);
    if (seen == nullptr) {
      std::lock_guard<std::mutex> hold(mutex_);
      seen = slot_.load(std::memory_order_relaxed);
      if (seen == nullptr) {
        seen = new RadarPlot;  // finding: init.lazy-needless
        slot_.store(seen, std::memory_order_release);
      }
    }
    return seen;
  }
  RadarPlot(const RadarPlot&) = delete;

 private:
  RadarPlot() = default;
  static std::atomic<RadarPlot*> slot_;
  static std::mutex mutex_;
  int echoes_ = 0;
};
std::atomic<RadarPlot*> RadarPlot::slot_{nullptr};
std::mutex RadarPlot::mutex_;  // harmless: mutex_
