class Watchlist {  // entity: singleton Watchlist lazy language
 public:
  static Watchlist& list() {
    static Watchlist instance;
    return instance;
  }
  Watchlist(const Watchlist&) = delete;
  void add(const std::string& ship) { ships_.push_back(ship); }  // finding: thread.unguarded-state  // finding: lifetime.grows-forever
  void sight() {
    std::lock_guard<std::mutex> hold(mutex_);
    sighted_.push_back(1);  // finding: lifetime.grows-forever
  }
  void count() { seen_.fetch_add(1); }

 private:
  Watchlist() = default;
  std::mutex mutex_;
  std::vector<std::string> ships_;
  std::vector<int> sighted_;
  std::atomic<int> seen_{0};
};

static int rounds = 0;  // entity: global-variable rounds eager language
static std::atomic<int> safeRounds{0};  // entity: global-variable safeRounds eager language
static int lockedRounds = 0;  // entity: global-variable lockedRounds eager language
static std::mutex roundsMutex;  // harmless: roundsMutex

void walk() {
  Watchlist::list().add("Gannet");
  Watchlist::list().sight();
  Watchlist::list().count();
  rounds = rounds + 1;  // finding: thread.lost-update
  ++safeRounds;
  std::lock_guard<std::mutex> hold(roundsMutex);
  ++lockedRounds;
}

void watch() {
  std::thread walker(walk);
  walk();
  walker.join();
}
