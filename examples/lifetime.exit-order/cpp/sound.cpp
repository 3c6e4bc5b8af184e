// Its constructor asks for the log too, which makes the log outlive it.
class DutyLog {
 public:
  static DutyLog& log() {
    static DutyLog instance;
    return instance;
  }
  DutyLog(const DutyLog&) = delete;
  void close(int flags) { closed_ += flags; }

 private:
  DutyLog() = default;
  int closed_ = 0;
};

class SignalMast {
 public:
  static SignalMast& mast() {
    static SignalMast instance;
    return instance;
  }
  ~SignalMast() { DutyLog::log().close(flags_); }
  SignalMast(const SignalMast&) = delete;
  void raise() { ++flags_; }

 private:
  SignalMast() { DutyLog::log(); }
  int flags_ = 0;
};
