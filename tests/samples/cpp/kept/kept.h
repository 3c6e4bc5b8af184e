// Code and addresses that are only kept while the program is loaded.
#pragma once
#include <functional>
#include <map>
#include <string>
#include <vector>

struct Names {  // entity: static-holder Names eager language  // finding: coupling.static-only-api
  static std::map<int, std::string> all;
};
static auto& names = Names::all;  // harmless: names  // near: init.order-across-files

class Option {
 public:
  Option& setReader(const std::function<int(int)>& reader) {
    reader_ = reader;
    return *this;
  }
  Option& keepTable(std::map<int, std::string>* table) {
    tables_.push_back(table);
    return *this;
  }
  Option& apply(const std::function<int(int)>& change) {
    size_ = change(size_);
    return *this;
  }

 private:
  std::function<int(int)> reader_;
  std::vector<std::map<int, std::string>*> tables_;
  int size_ = 0;
};

int lookUp(int key);
