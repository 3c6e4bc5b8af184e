// Whoever hoists it has it; the others have him.
class Flag {
 public:
  int colour = 0;
};

class Signaller {
 public:
  explicit Signaller(Flag& flag) : flag_(flag) {}
  int hoist() const { return flag_.colour; }

 private:
  Flag& flag_;
};

int climb(Signaller& signaller) { return signaller.hoist(); }
int walk(Signaller& signaller) { return climb(signaller); }
