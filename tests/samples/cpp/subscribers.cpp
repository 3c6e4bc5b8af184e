class Listener {
 public:
  virtual ~Listener() = default;
  virtual void heard(int signal) = 0;
};

class Siren {  // entity: singleton Siren lazy language
 public:
  static Siren& siren() {
    static Siren instance;
    return instance;
  }
  Siren(const Siren&) = delete;
  void attach(Listener* listener) { listeners_.push_back(listener); }
  void detach(Listener* listener) { listeners_.erase(std::find(listeners_.begin(), listeners_.end(), listener)); }
  void sound(int signal) {
    for (Listener* listener : listeners_) listener->heard(signal);  // finding: lifetime.notify-while-changing
  }

 private:
  Siren() = default;
  std::vector<Listener*> listeners_;
};

class Deckhand : public Listener {
 public:
  Deckhand() { Siren::siren().attach(this); }  // finding: lifetime.dangling-subscriber coupling.hidden-dependency
  void heard(int signal) override { last_ = signal; }

 private:
  int last_ = 0;
};

class Boatswain : public Listener {  // finding: lifetime.copied-subscriber
 public:
  Boatswain() { Siren::siren().attach(this); }
  ~Boatswain() override { Siren::siren().detach(this); }
  void heard(int signal) override { last_ = signal; }

 private:
  int last_ = 0;
};

void drill() {
  Deckhand hand;
  Boatswain boatswain;
  Siren::siren().sound(1);
}
