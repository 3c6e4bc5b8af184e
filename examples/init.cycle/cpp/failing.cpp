// Making the mast needs the log, and making the log needs the mast.
class SignalMast {
 public:
  static SignalMast& mast();
  SignalMast(const SignalMast&) = delete;
  int flags() const { return flags_; }

 private:
  SignalMast();
  int flags_ = 0;
};

class DutyLog {
 public:
  static DutyLog& log() {
    static DutyLog instance;
    return instance;
  }
  DutyLog(const DutyLog&) = delete;
  int lines() const { return lines_; }

 private:
  DutyLog() { lines_ = SignalMast::mast().flags(); }
  int lines_ = 0;
};

SignalMast& SignalMast::mast() {
  static SignalMast instance;
  return instance;
}
SignalMast::SignalMast() { flags_ = DutyLog::log().lines(); }
