// Each ship goes in, and none ever goes out.
#include <string>
#include <vector>

class DutyLog {
 public:
  static DutyLog& log() {
    static DutyLog instance;
    return instance;
  }
  DutyLog(const DutyLog&) = delete;
  void write(const std::string& entry) { entries_.push_back(entry); }

 private:
  DutyLog() = default;
  std::vector<std::string> entries_;
};
