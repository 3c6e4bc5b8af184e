// Shared objects that own files and threads.
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

class Weighbridge {  // entity: singleton Weighbridge lazy language
 public:
  static Weighbridge& bridge() {
    static Weighbridge instance;
    return instance;
  }
  ~Weighbridge() { std::fclose(tape_); }
  Weighbridge(const Weighbridge&) = delete;

 private:
  Weighbridge() : tape_(std::fopen("tape.txt", "w")) {}
  std::FILE* tape_;
};

class Telex {  // entity: singleton Telex lazy language
 public:
  static Telex& telex() {
    static Telex instance;
    return instance;
  }
  Telex(const Telex&) = delete;

 private:
  Telex() { line_ = std::fopen("telex.txt", "a"); }  // finding: lifetime.never-released
  std::FILE* line_;
};
