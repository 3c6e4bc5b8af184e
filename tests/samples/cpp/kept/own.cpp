// What is handed on, and classes that belong together.
#include <list>
#include <map>
#include <memory>
#include <vector>

struct Page {
  int lines = 0;
};

Page* makePage() { return new Page(); }  // near: lifetime.raw-owner

void fill(void** out) {
  Page* page = makePage();
  *out = reinterpret_cast<void*>(page);
}

// Each of these belongs to a thread; all are listed in the global LogBook singleton.
struct Entry {  // near: single.meant-single
  int line = 0;
};

void write(std::vector<Entry>& all) {
  all.push_back(Entry());
  Entry more;
  all.push_back(more);
}

// Takes itself out of what it walks over, and its copies are listed, too.
class Sheet;

class Line {
 public:
  void addParent(Sheet* sheet) { parents_.push_back(sheet); }
  void removeParent(Sheet* sheet) { parents_.remove(sheet); }
  void changed();

 private:
  std::list<Sheet*> parents_;
};

class Sheet {  // near: lifetime.dangling-subscriber  // near: lifetime.copied-subscriber
 public:
  Sheet() {}
  Sheet(const Sheet& other, int = 0) : lines_(other.lines_) {
    for (auto& each : lines_) each.second->addParent(this);
  }
  ~Sheet() { clear(); }
  void add(Line* line) {
    lines_[line] = line;
    line->addParent(this);
  }
  void clear() {
    for (auto it = lines_.begin(); it != lines_.end(); ++it) it->second->removeParent(this);
  }
  void redraw() {}

 private:
  std::map<Line*, Line*> lines_;
};

void Line::changed() {
  for (Sheet* each : parents_) each->redraw();
}

Sheet twice(const Sheet& sheet) { return Sheet(sheet); }

// A class and those nested in it are one.
class Clerk {
 public:
  int first() { return Desk::get().next(); }  // near: coupling.hidden-dependency
  int second() { return Desk::get().next(); }
  int third() { return Desk::get().next(); }

 private:
  class Desk {  // entity: singleton Desk lazy language  // finding: single.copyable
   public:
    static Desk& get() {
      static Desk desk;
      return desk;
    }
    int next() { return ++last_; }

   private:
    Desk() {}
    int last_ = 0;
  };
};

// Other objects of the abstract class are made as well.
class Ink {  // entity: shared-instance Ink lazy language
 public:
  virtual ~Ink() {}
  virtual void dip() = 0;
};

class Blue : public Ink {
 public:
  void dip() override { ++used_; }

 private:
  int used_ = 0;
};

std::shared_ptr<Ink> usualInk() {  // near: single.second-creation
  static std::shared_ptr<Ink> ink(new Blue());
  return ink;
}

std::unique_ptr<Ink> newInk() { return std::unique_ptr<Ink>(new Blue()); }
