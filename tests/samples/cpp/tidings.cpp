// An accessor that gives nothing: where who asks fails, where it is only handed on, and where what was handed in decides so.
class Tidings {  // finding: single.copyable  // entity: singleton Tidings lazy language
 public:
  static Tidings* get(bool open) {
    if (!open) return nullptr;  // finding: single.may-return-nothing
    static Tidings* one = new Tidings;
    return one;
  }
  int read() { return ++reads_; }

 private:
  Tidings() = default;
  int reads_ = 0;
};

class Chart {  // finding: single.copyable  // entity: singleton Chart lazy none
 public:
  static Chart* get() {
    if (closed_) return nullptr;  // finding: single.may-return-nothing
    if (!one_) one_ = new Chart;  // finding: thread.unguarded-creation
    return one_;
  }
  int depth() { return ++soundings_; }
  static bool closed_;

 private:
  Chart() = default;
  int soundings_ = 0;
  static Chart* one_;
};
Chart* Chart::one_ = nullptr;
bool Chart::closed_ = false;  // harmless: closed_

int show(Chart* chart);
int pilot() { return Chart::get()->depth() + Tidings::get(true)->read(); }
int print() { return show(Chart::get()); }
