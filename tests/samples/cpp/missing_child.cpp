// What is handed out where nothing is found is no service: all else that is handed out is the object's own.
#include <map>
#include <string>

class CargoSheet {  // near: single.open-constructor  // entity: singleton CargoSheet eager language  // finding: single.copyable
 public:
  static CargoSheet missing;
  CargoSheet& child(const std::string& name) {
    auto found = children_.find(name);
    if (found == children_.end()) return missing;
    return *found->second;
  }
  CargoSheet& operator[](const std::string& name) { return child(name); }
  void set(const std::string& value) { value_ = value; }
  bool known() const { return this != &missing; }

 private:
  std::map<std::string, CargoSheet*> children_;
  std::string value_;
};

CargoSheet CargoSheet::missing;

struct SheetOfDay {
  void write(CargoSheet& all) { all.child("day").set("1"); }
};
struct SheetOfNight {
  void write(CargoSheet& all) { all.child("night").set("1"); }
};
struct SheetOfTide {
  void write(CargoSheet& all) { all.child("tide").set("1"); }
};
struct SheetOfWeek {
  void write(CargoSheet& all) { all.child("week").set("1"); }
};
struct SheetOfYear {
  void write(CargoSheet& all) { all.child("year").set("1"); }
};
