#pragma once
// One lazily made context whose members are services, each behind a free function.
class Quaymaster {
 public:
  void call() { ++calls_; }

 private:
  int calls_ = 0;
};
class Storekeeper {
 public:
  void issue() { ++issued_; }

 private:
  int issued_ = 0;
};
Quaymaster& quaymaster();
Storekeeper* storekeeper();
