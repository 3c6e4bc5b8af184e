// Made in every program, and nobody asks for it.
#include <string>

class FogHorn {
 public:
  FogHorn() : tone_(std::string(3, 'u')) {}
  void sound() { ++sounded_; }

 private:
  std::string tone_;
  int sounded_ = 0;
};

static FogHorn fogHorn;
