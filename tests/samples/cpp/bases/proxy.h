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
