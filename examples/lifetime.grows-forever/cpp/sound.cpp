// The oldest entry goes when there are too many.
#include <deque>
#include <string>

class DutyLog {
 public:
  static DutyLog& log() {
    static DutyLog instance;
    return instance;
  }
  DutyLog(const DutyLog&) = delete;
  void write(const std::string& entry) {
    entries_.push_back(entry);
    if (entries_.size() > 1000) entries_.pop_front();
  }

 private:
  DutyLog() = default;
  std::deque<std::string> entries_;
};
