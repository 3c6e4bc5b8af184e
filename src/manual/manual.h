// Manual pages (man(7)) and completions for bash, zsh and fish, from the tables of the command
// line: what a command takes is said once.
#pragma once

#include <string>
#include <vector>

#include "cli/cli.h"

namespace elmcart::manual {

struct Option {
  std::string longName, shortName;  // without dashes; shortName may be empty
  std::string value;                // what stands for its value: "FILE"; empty: it takes none
  std::string fallback;             // what holds where it is not given; may be empty
  std::string text;
  std::vector<std::string> words;   // that it takes; empty: any
};
struct Page {
  std::string name, answers, operands;
  std::vector<std::string> examples;
  std::vector<std::string> firstWords;  // that the first operand may be; empty: files
  std::vector<Option> own, common;
};

// Each command, as it describes itself.
std::vector<Page> pages();

std::string manPage(const Page& page, const std::string& version);
std::string manPageOfAll(const std::vector<Page>& pages, const std::string& version);
std::string bashCompletion(const std::vector<Page>& pages);
std::string zshCompletion(const std::vector<Page>& pages);
std::string fishCompletion(const std::vector<Page>& pages);

}  // namespace elmcart::manual
