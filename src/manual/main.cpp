// Writes the manual pages and the completions below a folder; part of the build, not installed.
#include <filesystem>
#include <fstream>
#include <iostream>

#include "manual/manual.h"

int main(int argc, char** argv) {
  namespace fs = std::filesystem;
  using namespace elmcart::manual;
  if (argc != 2) {
    std::cerr << "usage: write_manual FOLDER\n";
    return 2;
  }
  fs::path folder = argv[1];
  bool fine = true;
  auto write = [&](const fs::path& path, const std::string& text) {
    fs::create_directories((folder / path).parent_path());
    std::ofstream out(folder / path, std::ios::binary);
    out << text;
    fine = fine && out.flush();
  };
  std::vector<Page> all = pages();
  write("man1/elmcart.1", manPageOfAll(all, ELMCART_VERSION));
  for (const Page& page : all) write("man1/elmcart-" + page.name + ".1", manPage(page, ELMCART_VERSION));
  write("bash/elmcart", bashCompletion(all));
  write("zsh/_elmcart", zshCompletion(all));
  write("fish/elmcart.fish", fishCompletion(all));
  return fine ? 0 : 1;
}
