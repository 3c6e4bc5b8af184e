#pragma once

#include <string>

namespace office {

class TideTableInterface {
public:
  virtual ~TideTableInterface() = default;
  virtual int height(int day) const = 0;
  virtual const std::string& name() const noexcept = 0;
};

// The water's height, day by day.
class TideTable : public TideTableInterface {
 public:
  explicit TideTable(int first) : first_(first) {}
  int height(int day) const { return first_ + day; }
  void raise(int by = 1);
  [[nodiscard]] const std::string& name() const noexcept;
  void forget() { first_ = 0; }

 private:
  int first_;
  std::string name_ = "tides";
};

}  // namespace office
