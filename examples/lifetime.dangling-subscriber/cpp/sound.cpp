// The lookout takes itself out before it dies.
#include <algorithm>
#include <cstdio>
#include <memory>
#include <vector>

class Lookout;

class SignalMast {
 public:
  static SignalMast& mast() {
    static SignalMast instance;
    return instance;
  }
  SignalMast(const SignalMast&) = delete;
  void attach(Lookout* lookout) { lookouts_.push_back(lookout); }
  void detach(Lookout* lookout) { lookouts_.erase(std::find(lookouts_.begin(), lookouts_.end(), lookout)); }
  void raise(int signal);

 private:
  SignalMast() = default;
  std::vector<Lookout*> lookouts_;
};

class Lookout {
 public:
  Lookout() { SignalMast::mast().attach(this); }
  ~Lookout() { SignalMast::mast().detach(this); }
  Lookout(const Lookout&) = delete;
  void heard(int signal) { last_ = signal; }

 private:
  int last_ = 0;
};

void SignalMast::raise(int signal) {
  for (Lookout* lookout : lookouts_) lookout->heard(signal);
}

int main() {
  auto lookout = std::make_unique<Lookout>();
  lookout.reset();
  SignalMast::mast().raise(3);
  std::puts("raised");
}
