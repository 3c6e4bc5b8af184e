// Whoever hoists it has it; the others have him.
class Flag {
 public:
  int dipped = 0;
};

Flag& harbourFlag() {
  static Flag flag;
  return flag;
}

class Signaller {
 public:
  explicit Signaller(Flag& flag) : flag_(flag) {}
  int hoist() { return ++flag_.dipped; }

 private:
  Flag& flag_;
};

int climb(Signaller& signaller) { return signaller.hoist(); }
int walk(Signaller& signaller) { return climb(signaller); }
