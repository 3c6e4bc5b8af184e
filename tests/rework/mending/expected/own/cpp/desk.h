#pragma once

#include <memory>
#include <string>

class Lamp {
 public:
  explicit Lamp(int strength) : strength_(strength) {}
  virtual ~Lamp() = default;
  int strength() const { return strength_; }

 private:
  int strength_;
};

// Each desk has its own lamp, and may have a log.
class Desk {
 public:
  Desk();
  ~Desk();
  Desk(const Desk&) = delete;
  Desk& operator=(const Desk&) = delete;

  void change(int strength);
  void keepLog(const std::string& name);
  bool isDark() const { return !lamp_ || lamp_->strength() == 0; }
  const Lamp* lamp() const { return lamp_.get(); }
  const std::string* log() const;

 private:
  std::unique_ptr<Lamp> lamp_;
  std::string name_;
  std::unique_ptr<Lamp> spare_ = std::make_unique<Lamp>(1);
};

int strengthOf(const Lamp* lamp);
