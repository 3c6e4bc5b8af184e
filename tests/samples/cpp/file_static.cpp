namespace port {

static int shipsToday = 0;  // entity: global-variable shipsToday eager language
static std::vector<std::string> names;  // entity: global-variable names eager language

void arrive(const std::string& name) {
  ++shipsToday;
  names.push_back(name);  // finding: lifetime.grows-forever
}
int shipsSoFar() { return shipsToday; }

// A ready instance reached by a free function; its class can be made freely.
class Tideboard {
 public:
  void post(int high) { high_ = high; }
  int high() const { return high_; }

 private:
  int high_ = 0;
};
static Tideboard* board = nullptr;  // entity: shared-instance board lazy none
Tideboard& tideboard() {
  if (!board) board = new Tideboard();  // finding: thread.unguarded-creation
  return *board;
}

// A namespace-scope object with behaviour, and one without.
Tideboard northBoard;  // entity: shared-instance northBoard eager language
struct Draught {
  int fore = 0;
  int aft = 0;
};
Draught lastDraught;  // entity: global-variable lastDraught eager language
void measure(int fore) { lastDraught.fore = fore; }
void postNorth(int high) { northBoard.post(high); }

int nextNumber() {
  static int number = 0;  // entity: function-static number lazy language
  return ++number;
}

thread_local int lastBerth = 0;  // entity: thread-local lastBerth eager language
void remember(int berth) { lastBerth = berth; }

}  // namespace port
