#pragma once

#include <algorithm>
#include <string>
#include <vector>

namespace office {

// Is told of every signal that goes up.
class SignalKeeper {
 public:
  virtual ~SignalKeeper() = default;
  virtual void raised(const std::string& signal) = 0;
};

// The mast on the office's roof.
class SignalMast {
 public:
  static SignalMast& mast() {
    static SignalMast instance;
    return instance;
  }

  SignalMast(const SignalMast&) = delete;
  SignalMast& operator=(const SignalMast&) = delete;

  void enlist(SignalKeeper* keeper) { keepers_.push_back(keeper); }
  void dismiss(SignalKeeper* keeper) { keepers_.erase(std::remove(keepers_.begin(), keepers_.end(), keeper), keepers_.end()); }
  int hoist(const std::string& signal);

 private:
  SignalMast() = default;

  std::vector<SignalKeeper*> keepers_;
};

// Lights the lantern for a night signal; stays on the mast's list for good.
class Lantern : public SignalKeeper {
 public:
  Lantern() { SignalMast::mast().enlist(this); }
  Lantern(const Lantern&) = delete;
  Lantern& operator=(const Lantern&) = delete;
  void raised(const std::string& signal) override { lit_ = signal == "night"; }
  bool lit() const { return lit_; }

 private:
  bool lit_ = false;
};

// Sounds the horn in fog; takes itself off the list when it goes.
class FogHorn : public SignalKeeper {
 public:
  FogHorn() { SignalMast::mast().enlist(this); }
  ~FogHorn() override { SignalMast::mast().dismiss(this); }
  FogHorn(const FogHorn&) = delete;
  FogHorn& operator=(const FogHorn&) = delete;
  void raised(const std::string& signal) override { blasts_ += signal == "fog" ? 1 : 0; }
  int blasts() const { return blasts_; }

 private:
  int blasts_ = 0;
};

}  // namespace office
