#include <cstdio>
#include <fstream>

class Logbook {  // entity: singleton Logbook lazy none
 public:
  static Logbook& book() {
    if (!book_) book_ = new Logbook;  // finding: thread.unguarded-creation
    return *book_;
  }
  Logbook(const Logbook&) = delete;
  void write(const char* line) { out_ << line; }

 private:
  Logbook() : out_("log.txt") {}
  static Logbook* book_;
  std::ofstream out_;  // finding: lifetime.never-released
};
Logbook* Logbook::book_ = nullptr;
