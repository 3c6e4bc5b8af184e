#include <string>
#include <vector>

// An object that stands for "nowhere": it is handed out as a constant.
class Mooring {
 public:
  std::string name() const { return name_; }
  void rename(const std::string& name) { name_ = name; }

 private:
  std::string name_;
};

class Chart {
 public:
  const Mooring& last() const {
    static Mooring nowhere;  // harmless: nowhere
    if (moorings_.empty()) return nowhere;
    return *moorings_.back();
  }
  void add(Mooring* mooring) { moorings_.push_back(mooring); }

 private:
  std::vector<Mooring*> moorings_;
};

// An object that decides itself when it ends.
class Errand {
 public:
  void run() { delete this; }
};

Errand* newErrand() { return new Errand(); }  // near: lifetime.raw-owner

void send() {
  Errand* errand = newErrand();
  errand->run();
}

// By way of its base anybody may set it up.
class Pump {
 public:
  virtual ~Pump() = default;
  virtual void prepare() {}
};

class Bilge : public Pump {  // entity: singleton Bilge lazy language  // finding: single.open-constructor single.copyable
 public:
  static Bilge& instance() {
    static Bilge bilge;
    return bilge;
  }
  void prepare() override { mooring_ = new Mooring(); }  // near: init.needs-setup
  std::string place() const { return mooring_->name(); }

 private:
  Mooring* mooring_ = nullptr;
};

std::string whereBilge() { return Bilge::instance().place(); }
