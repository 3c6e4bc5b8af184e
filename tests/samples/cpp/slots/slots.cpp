// Another takes its place; near miss: set once by who makes it.
class MistHorn {  // entity: singleton MistHorn lazy none
 public:
  static MistHorn& horn() {
    if (!horn_) horn_ = new MistHorn();  // finding: thread.unguarded-creation
    return *horn_;
  }
  static void replace(MistHorn* other) {
    horn_ = other;  // finding: single.replaceable
  }
  void blow() { blown_ = 1; }
  MistHorn(const MistHorn&) = delete;
  MistHorn& operator=(const MistHorn&) = delete;

 private:
  MistHorn() = default;
  int blown_ = 0;
  static MistHorn* horn_;
};

MistHorn* MistHorn::horn_ = nullptr;

void keepTheHorn(MistHorn* horn) { MistHorn::replace(horn); }

// One slot for a family of classes.
class Berth {  // entity: singleton Berth lazy lock
 public:
  virtual ~Berth() = default;
  static Berth* get() {
    std::lock_guard<std::mutex> hold(gate_);
    if (!berth_) berth_ = new Berth();  // finding: single.slot-shared-by-subclasses init.lazy-needless
    return berth_;
  }
  void moor() { ships_ = 1; }
  Berth(const Berth&) = delete;
  Berth& operator=(const Berth&) = delete;

 protected:
  Berth() = default;  // finding: single.subclassable
  static Berth* berth_;
  static std::mutex gate_;

 private:
  int ships_ = 0;
};

Berth* Berth::berth_ = nullptr;
std::mutex Berth::gate_;  // harmless: gate_

class DeepBerth : public Berth {
 public:
  static void open() {
    std::lock_guard<std::mutex> hold(gate_);
    berth_ = new DeepBerth();  // finding: coupling.hidden-dependency single.replaceable
  }
};

// Only the first caller's name counts; near miss: the name is set each time.
class Plate {  // entity: singleton Plate lazy lock
 public:
  static Plate& get(const std::string& name) {  // finding: init.arguments-ignored
    std::lock_guard<std::mutex> hold(gate_);
    if (!plate_) plate_ = new Plate(name);
    return *plate_;
  }
  void rename(const std::string& name) { name_ = name; }
  Plate(const Plate&) = delete;
  Plate& operator=(const Plate&) = delete;

 private:
  explicit Plate(const std::string& name) : name_(name) {}
  std::string name_;
  static Plate* plate_;
  static std::mutex gate_;
};

Plate* Plate::plate_ = nullptr;
std::mutex Plate::gate_;  // harmless: gate_

// The slot is read outside the lock.
class Radar {  // entity: singleton Radar lazy double-check-unsound
 public:
  static Radar* get() {
    if (!radar_) {  // finding: thread.double-check-unsound
      std::lock_guard<std::mutex> hold(gate_);
      if (!radar_) radar_ = new Radar();  // finding: init.lazy-needless
    }
    return radar_;
  }
  void sweep() { sweeps_ = 1; }
  Radar(const Radar&) = delete;
  Radar& operator=(const Radar&) = delete;

 private:
  Radar() = default;
  int sweeps_ = 0;
  static Radar* radar_;
  static std::mutex gate_;
};

Radar* Radar::radar_ = nullptr;
std::mutex Radar::gate_;  // harmless: gate_

// Others run while it is made; near miss: nothing runs in between.
template <typename T>
struct task;
task<int> warmUp();

class Radio {
 public:
  static task<Radio*> get() {
    if (!radio_) {
      co_await warmUp();  // finding: thread.await-gap
      radio_ = new Radio();  // finding: thread.unguarded-creation
    }
    co_return radio_;
  }
  static task<Radio*> second() {
    co_await warmUp();  // near: thread.await-gap
    if (!sonar_) sonar_ = new Radio();  // finding: thread.unguarded-creation
    co_return sonar_;
  }
  void tune() { channel_ = 1; }
  Radio(const Radio&) = delete;
  Radio& operator=(const Radio&) = delete;

 private:
  Radio() = default;
  int channel_ = 16;
  static Radio* radio_;
  static Radio* sonar_;
};

Radio* Radio::radio_ = nullptr;  // entity: static-field radio_ lazy none
Radio* Radio::sonar_ = nullptr;  // entity: static-field sonar_ lazy none
