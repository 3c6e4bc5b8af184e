#include <cstdio>
#include <string>

std::string readName() { return "Elmwater"; }
const std::string& harbourName() {
  static const std::string name = readName();
  return name;
}

int shown();

int main() {
  std::printf("%d letters\n", shown());
  return shown() == 16 ? 0 : 1;
}
