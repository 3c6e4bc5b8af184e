#include <cstdio>
#include <string>

std::string readName() { return "Elmwater"; }
std::string harbourName = readName();

int shown();

int main() {
  std::printf("%d letters\n", shown());
  return shown() == 16 ? 0 : 1;
}
