#include <fstream>
#include <string>
#include <vector>

namespace ties {

// Nothing to hand in.
class Dues {  // entity: static-holder Dues eager language // finding: coupling.static-only-api
 public:
  static void add(int coins) { total_ += coins; }
  static int total() { return total_; }

 private:
  static int total_;
};
int Dues::total_ = 0;
class Tollhouse {
 public:
  void pay() { Dues::add(3); }
};
class Treasurer {
 public:
  int count() { return Dues::total(); }
};
class Customs {
  bool due() { return Dues::total() > 9; }
};

// Passed through three functions that do nothing with it.
class Permit {
 public:
  bool valid() const { return true; }
};
class Gatehouse {
 public:
  bool check(const Permit& permit) { return permit.valid(); }
};
Gatehouse gatehouse;  // harmless: gatehouse
bool gate(const Permit& permit) { return gatehouse.check(permit); }
bool quay(const Permit& permit) { return gate(permit); }
bool pier(const Permit& permit) { return quay(permit); }  // near: coupling.long-handoff
// Near miss: each looks at it.
bool yard(const Permit& permit) { return permit.valid() && gatehouse.check(permit); }
bool dock(const Permit& permit) { return permit.valid() && yard(permit); }

}  // namespace ties
