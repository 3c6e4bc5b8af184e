#pragma once

#include <memory>
#include <string>
#include <vector>

namespace office {

// A service that is ordered for a ship at a berth.
class PortService {
 public:
  virtual ~PortService() = default;
  virtual std::string order(int berth) = 0;

 protected:
  std::string shipName(int berth) const;
};

// Fresh water by barge.
class WaterBarge : public PortService {
 public:
  explicit WaterBarge(int tons) : tons_(tons) {}
  WaterBarge() : WaterBarge(40) {}
  std::string order(int berth) override;

 private:
  int tons_;
};

// Tugs, sent in order of their numbers.
class TugDispatch : public PortService {
 public:
  std::string order(int berth) override;

 private:
  int sent_ = 0;
};

// All services of the office, by number.
class ServiceDesk {
 public:
  ServiceDesk();
  std::string order(std::size_t service, int berth);
  std::size_t count() const { return services_.size(); }

 private:
  std::vector<std::unique_ptr<PortService>> services_;
};

}  // namespace office
