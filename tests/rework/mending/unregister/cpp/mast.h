#pragma once

#include <vector>

class Keeper {
 public:
  virtual ~Keeper() = default;
  virtual void heard(int signal) = 0;
};

class SignalMast {
 public:
  void attach(Keeper* keeper);
  void raise(int signal);

 private:
  std::vector<Keeper*> keepers_;
};

SignalMast& theMast();

class Lookout : public Keeper {
 public:
  explicit Lookout(SignalMast& mast);
  void heard(int signal) override;
  int last() const { return last_; }

 private:
  SignalMast& mast_;
  int last_ = 0;
};
