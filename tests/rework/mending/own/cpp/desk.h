#pragma once

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
  const Lamp* lamp() const { return lamp_; }
  const std::string* log() const;

 private:
  Lamp* lamp_;
  std::string name_;
  Lamp *spare_ = new Lamp(1);
};

int strengthOf(const Lamp* lamp);
