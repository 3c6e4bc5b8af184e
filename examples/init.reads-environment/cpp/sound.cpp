// Read where the program is put together; the value is handed in.
#include <cstdlib>
#include <string>

class TideTable {
 public:
  explicit TideTable(std::string harbour) : harbour_(harbour) {}
  const std::string& harbour() const { return harbour_; }

 private:
  std::string harbour_;
};

int main() {
  const char* name = std::getenv("HARBOUR");
  TideTable table(name ? name : "Elmwater");
  return table.harbour().empty() ? 1 : 0;
}
