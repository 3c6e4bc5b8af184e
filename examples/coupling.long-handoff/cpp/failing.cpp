// Four functions pass the one flag of the harbour on, and only the last one looks at it.
class Flag {
 public:
  int dipped = 0;
};

Flag& harbourFlag() {
  static Flag flag;
  return flag;
}

int hoist(Flag& flag) { return ++flag.dipped; }
int climb(Flag& flag) { return hoist(flag); }
int walk(Flag& flag) { return climb(flag); }
int order(Flag& flag) { return walk(flag); }
int decide(Flag& flag) { return order(flag); }
