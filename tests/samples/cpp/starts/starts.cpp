#include <cstdlib>
#include <fstream>
#include <iostream>
#include <mutex>
#include <stdexcept>
#include <string>

namespace starts {

// Each needs the other while it is made.
class HarbourLight {  // entity: singleton HarbourLight lazy language // finding: single.copyable
 public:
  static HarbourLight& light();
  int height() const { return height_; }

 private:
  HarbourLight();
  int height_ = 0;
};

class HarbourMole {  // entity: singleton HarbourMole lazy language // finding: single.copyable
 public:
  static HarbourMole& mole() {
    static HarbourMole instance;
    return instance;
  }
  int length() const { return length_; }

 private:
  HarbourMole() { length_ = HarbourLight::light().height() * 2; }  // finding: coupling.cycle
  int length_ = 0;
};

HarbourLight& HarbourLight::light() {
  static HarbourLight instance;  // finding: init.cycle
  return instance;
}
HarbourLight::HarbourLight() { height_ = HarbourMole::mole().length() / 2; }  // finding: coupling.cycle

// Near miss: one needs the other, and not the reverse.
class Breakwater {  // entity: singleton Breakwater lazy language // finding: single.copyable
 public:
  static Breakwater& wall() {
    static Breakwater instance;
    return instance;
  }
  int stones() const { return stones_; }

 private:
  Breakwater() { stones_ = HarbourMole::mole().length(); }
  int stones_ = 0;
};

// Near miss: uses the object at hand.
class NightBook {  // entity: singleton NightBook lazy language // finding: single.copyable
 public:
  static NightBook& book() {
    static NightBook instance;
    return instance;
  }
  void enter() { ++entries_; }

 private:
  NightBook() { enter(); }
  int entries_ = 0;
};

class Chart {
 public:
  int depth() const { return 4; }
};

// Works only after a call, and is used before it.
class Plotter {  // entity: singleton Plotter lazy language // finding: single.copyable
 public:
  static Plotter& plotter() {
    static Plotter instance;
    return instance;
  }
  void load(Chart* chart) { chart_ = chart; }
  int depth() { return chart_->depth(); }

 private:
  Plotter() = default;
  Chart* chart_ = nullptr;
};

// Near misses: tests for it; gets it from its constructor.
class Surveyor {  // entity: singleton Surveyor lazy language // finding: single.copyable
 public:
  static Surveyor& surveyor() {
    static Surveyor instance;
    return instance;
  }
  void load(Chart* chart) { chart_ = chart; }
  int depth() { return chart_ != nullptr ? chart_->depth() : 0; }

 private:
  Surveyor() = default;
  Chart* chart_ = nullptr;
};

class Dredger {  // entity: singleton Dredger lazy language // finding: single.copyable
 public:
  static Dredger& dredger() {
    static Dredger instance;
    return instance;
  }
  int depth() { return chart_->depth(); }

 private:
  Dredger() : chart_(new Chart) {}
  Chart* chart_;
};

int soundings(Chart* chart) {
  int depth = Plotter::plotter().depth();  // finding: init.needs-setup
  Plotter::plotter().load(chart);
  Surveyor::surveyor().load(chart);
  return depth + Surveyor::surveyor().depth() + Dredger::dredger().depth();
}

class MoonTable {
 public:
  MoonTable() { read(); }
  int rows() const { return rows_; }

 private:
  void read() {
    if (rows_ == 0) throw std::runtime_error("no moons");
  }
  int rows_ = 0;
};
static MoonTable moons; // entity: global-variable moons eager language  // near: init.may-throw
static MoonTable darkMoons;  // near: init.may-throw  // finding: init.eager-unused  // entity: global-variable darkMoons eager language

// Near misses: throws later; catches what it threw.
class StarTable {  // entity: singleton StarTable lazy language // finding: single.copyable
 public:
  static StarTable& table() {
    static StarTable instance;
    return instance;
  }
  int row(int number) const {
    if (number > rows_) throw std::out_of_range("no such star");
    return number;
  }

 private:
  StarTable() {
    try {
      if (rows_ == 0) throw std::runtime_error("no stars");
    } catch (const std::runtime_error&) {
      rows_ = 1;
    }
  }
  int rows_ = 0;
};

// Made at load, and nobody uses them.
class SpareLamp {
 public:
  SpareLamp() { oil_ = 5; }
  void fill() { ++oil_; }

 private:
  int oil_ = 0;
};
static SpareLamp spare; // finding: init.eager-unused  // entity: global-variable spare eager language
static SpareLamp second; // finding: init.eager-unused  // entity: global-variable second eager language
// Near misses: used; made for what its constructor does elsewhere.
static SpareLamp lit;  // entity: global-variable lit eager language
int listed = 0;  // entity: global-variable listed eager language
class Listing {
 public:
  Listing() { ++listed; }
  void strike() { ++struck_; }

 private:
  int struck_ = 0;
};
static Listing listing;  // entity: global-variable listing eager language

// What main calls last ends with the program: its locals live as long as what points at them.
struct Office {
  int ships = 0;
};
Office* office = nullptr;  // entity: global-variable office elsewhere none

int day(int ships) {
  Office today;
  office = &today;  // near: lifetime.local-address-stored
  office->ships += ships;
  return office->ships;
}

// Marked as done before the work is: who catches what it throws goes on, and asks again in vain.
class Signals {  // entity: static-holder Signals eager language
 public:
  static void setUp() {
    if (ready_) return;
    ready_ = true;  // finding: init.may-throw
    if (!std::getenv("SIGNALS")) throw std::runtime_error("no signals");
  }
  static void tearDown() { ready_ = false; }

 private:
  static bool ready_;
};

bool Signals::ready_ = false;

// Near miss: marked when the work is done.
class Horns {  // entity: static-holder Horns eager language
 public:
  static void setUp() {
    if (ready_) return;
    if (!std::getenv("HORNS")) throw std::runtime_error("no horns");
    ready_ = true;  // near: init.may-throw
  }

 private:
  static bool ready_;
};

bool Horns::ready_ = false;

bool startUp() {
  try {
    Signals::setUp();
    Horns::setUp();
  } catch (const std::runtime_error&) {
    return false;
  }
  return true;
}

}  // namespace starts

int main() {
  starts::Chart chart;
  starts::lit.fill();
  starts::NightBook::book().enter();
  int ships = starts::soundings(&chart) + starts::Breakwater::wall().stones() + starts::moons.rows() + starts::StarTable::table().row(1) + starts::listed;
  return starts::day(ships);
}
