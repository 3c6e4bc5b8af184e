// Macros and bases of a library that is not here: the class stays whole, and the overload is the one
// whose parameter the base fits.
#pragma once
#include <map>

class OFFICE_EXPORT Proxy : public Watched {
  WATCHED_OBJECT
  SYNCED_OBJECT

 public:
  explicit Proxy(int depth = 0) : depth_(depth) {}
  void synchronize(const Board* board);
  const Kind* kindOf(const Watched* watched) const;
  void enter(const Kind* kind, bool fresh = false);
  void enter(const Watched* watched, bool fresh = false) { enter(kindOf(watched), fresh); }

 private:
  int depth_;
  std::map<const Kind*, int> kinds_;
};

class Board : public Watched {
 public:
  explicit Board(Proxy* proxy) : proxy_(proxy) { proxy_->synchronize(this); }

 private:
  Proxy* proxy_;
};

// Where signals are connected, no network is: a client takes a socket first.
class Wires : public Watched {
 public:
  void join() { connect(this, 1, this, 2); }
};

class Panel {
 public:
  Panel() : wires_(new Wires) { wires_->join(); }

 private:
  Wires* wires_;
};
