// The mast works with the pilot, who reaches for the mast.
class Pilot;

class SignalMast {
 public:
  static SignalMast& mast() {
    static SignalMast instance;
    return instance;
  }
  SignalMast(const SignalMast&) = delete;
  void call(Pilot& pilot);
  void raise(int flags) { flags_ += flags; }

 private:
  SignalMast() = default;
  int flags_ = 0;
};

class Pilot {
 public:
  void called() { SignalMast::mast().raise(2); }
};

void SignalMast::call(Pilot& pilot) { pilot.called(); }
