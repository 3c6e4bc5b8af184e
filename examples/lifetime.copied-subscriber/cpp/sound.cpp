// Copies and moves are closed.
#include <set>

class Lookout;

class SignalMast {
 public:
  static SignalMast& mast() {
    static SignalMast instance;
    return instance;
  }
  SignalMast(const SignalMast&) = delete;
  void attach(Lookout* lookout) { lookouts_.insert(lookout); }
  void detach(Lookout* lookout) { lookouts_.erase(lookout); }

 private:
  SignalMast() = default;
  std::set<Lookout*> lookouts_;
};

class Lookout {
 public:
  Lookout() { SignalMast::mast().attach(this); }
  ~Lookout() { SignalMast::mast().detach(this); }
  Lookout(const Lookout&) = delete;
  Lookout& operator=(const Lookout&) = delete;
};
