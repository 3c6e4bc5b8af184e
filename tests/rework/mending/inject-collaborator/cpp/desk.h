#pragma once
#include <fstream>
#include <memory>
#include <string>

class TideFile {
 public:
  explicit TideFile(std::string path) : path_(std::move(path)) {}
  virtual ~TideFile() = default;
  virtual std::string read() const {
    std::ifstream in(path_);
    std::string text;
    std::getline(in, text);
    return text;
  }

 private:
  std::string path_;
};

class Desk {
 public:
  explicit Desk(const std::string& port);
  int height() const { return static_cast<int>(tides_->read().size()); }

 private:
  std::unique_ptr<TideFile> tides_;
};
