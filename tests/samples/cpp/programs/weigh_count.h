#pragma once

#include <string>

class WeighCount {
 public:
  explicit WeighCount(const std::string& name);
  void add(const std::string& what);

 private:
  std::string name_;
  int count_ = 0;
};

class WeighDesk {
 public:
  WeighDesk();
};
