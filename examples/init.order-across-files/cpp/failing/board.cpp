// What the board shows is taken from another file's variable.
#include <string>

extern std::string harbourName;
std::string title = harbourName + " harbour";

int shown() { return static_cast<int>(title.size()); }
