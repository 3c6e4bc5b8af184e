// Four functions pass the flag on, and only the last one looks at it.
class Flag {
 public:
  int colour = 0;
};

int hoist(Flag& flag) { return flag.colour; }
int climb(Flag& flag) { return hoist(flag); }
int walk(Flag& flag) { return climb(flag); }
int order(Flag& flag) { return walk(flag); }
int decide(Flag& flag) { return order(flag); }
