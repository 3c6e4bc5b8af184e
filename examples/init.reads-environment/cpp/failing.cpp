// What it is depends on where the program was started; a test cannot choose.
#include <cstdlib>
#include <string>

class TideTable {
 public:
  static TideTable& table() {
    static TideTable instance;
    return instance;
  }
  TideTable(const TideTable&) = delete;
  const std::string& harbour() const { return harbour_; }

 private:
  TideTable() {
    if (const char* name = std::getenv("HARBOUR")) harbour_ = name;
  }
  std::string harbour_ = "Elmwater";
};
