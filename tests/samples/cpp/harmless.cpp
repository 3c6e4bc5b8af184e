#include <array>
#include <map>
#include <memory>
#include <string>
#include <vector>

namespace port {

constexpr int kBerths = 12;  // harmless: kBerths
const std::string kOffice = "harbour office";  // harmless: kOffice
static const std::map<char, std::string> kFlags = {{'H', "pilot"}, {'Q', "healthy"}};  // harmless: kFlags
static const char* const kQuays[] = {"north", "south"};  // harmless: kQuays
static const char* defaultQuay = "north";  // harmless: defaultQuay
std::string quay() { return defaultQuay; }

// A table that is built once, inside the function that needs it.
int depthOf(int berth) {
  static const std::array<int, 3> kDepths = {7, 9, 12};  // harmless: kDepths
  return kDepths[berth % 3];
}

// Read by a shift, copied to where a reference refers, or copied from: none of them changes.
static const int kShift = 4;  // harmless: kShift
static const std::string kNoName = "unnamed";  // harmless: kNoName
static const char kFiller[] = "....";  // harmless: kFiller
void label(int code, std::string& name, char* out) {
  if (code >> kShift == 0) name = kNoName;
  name += '!';
  memcpy(out, kFiller, sizeof(kFiller));
}

// Only static functions, no state: nothing to find.
class Knots {
 public:
  static double toMetres(double knots) { return knots * 0.514444; }
};

}  // namespace port
