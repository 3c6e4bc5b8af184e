// What the board shows is asked from a function, which makes it when it is first asked.
#include <string>

const std::string& harbourName();
std::string title = harbourName() + " harbour";

int shown() { return static_cast<int>(title.size()); }
