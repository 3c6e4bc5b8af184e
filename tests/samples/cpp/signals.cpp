// Macros among members, texts that name handlers, a macro that takes copying away, and objects of which there is a series.
#include <map>
#include <string>

class Flagstaff {  // entity: singleton Flagstaff lazy none
 public:
  Flagstaff();  // finding: single.open-constructor
  static Flagstaff* instance();
  void hoist();
  void tick();
  BOARD_PROPERTY(height, "Height",
                 []() { return kHeight; });
  BOARD_METHOD(hoist, "Hoist",
               "a(ia)");
  static constexpr int kHeight = 12;  // harmless: kHeight

 private:
  static Flagstaff* staff_;
  std::map<int, std::string> flags_;
  int raised_ = 0;  // a field, whatever the macros say
  Q_DISABLE_COPY(Flagstaff)
};

Flagstaff* Flagstaff::staff_ = nullptr;

Flagstaff::Flagstaff() {
  connect(timer(), SIGNAL(timeout()), this, SLOT(tick()));  // near: init.reentrant
}

Flagstaff* Flagstaff::instance() {
  if (staff_ == nullptr) staff_ = new Flagstaff();  // finding: thread.unguarded-creation
  return staff_;
}

void Flagstaff::tick() { Flagstaff::instance()->hoist(); }
void Flagstaff::hoist() {
  ++raised_;
  flags_[1] = "blue";
}

class Setting {
 public:
  int value() const { return value_; }
  void set(int value) { value_ = value; }

 protected:
  explicit Setting(int value) : value_(value) {}
  friend class Settings;

 private:
  int value_;
};

class Settings {  // entity: static-holder Settings eager language
 public:
  static Setting depth;
  static Setting width;
  static Setting tide; 
};

Setting Settings::depth(4);
Setting Settings::width(9);
Setting Settings::tide(2);

int room() { return Settings::depth.value() - Settings::tide.value(); }
void deepen() { Settings::depth.set(room() + Settings::width.value()); }
