// The log stands by itself; the mast is told of it.
class DutyLog {
 public:
  static DutyLog& log() {
    static DutyLog instance;
    return instance;
  }
  DutyLog(const DutyLog&) = delete;
  int lines() const { return lines_; }

 private:
  DutyLog() = default;
  int lines_ = 0;
};

class SignalMast {
 public:
  static SignalMast& mast() {
    static SignalMast instance;
    return instance;
  }
  SignalMast(const SignalMast&) = delete;

 private:
  SignalMast() { flags_ = DutyLog::log().lines(); }
  int flags_ = 0;
};
