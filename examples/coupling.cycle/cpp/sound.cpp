// The pilot answers, and need not know the mast.
class Pilot {
 public:
  int called() const { return 2; }
};

class SignalMast {
 public:
  static SignalMast& mast() {
    static SignalMast instance;
    return instance;
  }
  SignalMast(const SignalMast&) = delete;
  void call(Pilot& pilot) { flags_ += pilot.called(); }

 private:
  SignalMast() = default;
  int flags_ = 0;
};
