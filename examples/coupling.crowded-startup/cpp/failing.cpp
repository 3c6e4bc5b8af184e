// What works depends on the order of these lines, and nothing says why.
class Tides {
 public:
  static Tides& get() { static Tides t; return t; }
  Tides(const Tides&) = delete;
  void start() { ++started_; }

 private:
  Tides() = default;
  int started_ = 0;
};
class Berths {
 public:
  static Berths& get() { static Berths b; return b; }
  Berths(const Berths&) = delete;
  void start() { ++started_; }

 private:
  Berths() = default;
  int started_ = 0;
};
class Pilots {
 public:
  static Pilots& get() { static Pilots p; return p; }
  Pilots(const Pilots&) = delete;
  void start() { ++started_; }

 private:
  Pilots() = default;
  int started_ = 0;
};
class Mast {
 public:
  static Mast& get() { static Mast m; return m; }
  Mast(const Mast&) = delete;
  void start() { ++started_; }

 private:
  Mast() = default;
  int started_ = 0;
};
class Scale {
 public:
  static Scale& get() { static Scale s; return s; }
  Scale(const Scale&) = delete;
  void start() { ++started_; }

 private:
  Scale() = default;
  int started_ = 0;
};
class Log {
 public:
  static Log& get() { static Log l; return l; }
  Log(const Log&) = delete;
  void start() { ++started_; }

 private:
  Log() = default;
  int started_ = 0;
};

void openHarbour() {
  Tides::get().start();
  Berths::get().start();
  Pilots::get().start();
  Mast::get().start();
  Scale::get().start();
  Log::get().start();
}
