#pragma once
// One lazily made context whose members are services, each behind a free function.
class Quaymaster {  // entity: singleton Quaymaster lazy none  // finding: single.open-constructor
 public:
  void call() { ++calls_; }

 private:
  int calls_ = 0;
};
class Storekeeper {  // entity: singleton Storekeeper lazy none  // finding: single.open-constructor
 public:
  void issue() { ++issued_; }

 private:
  int issued_ = 0;
};
Quaymaster& quaymaster();
Storekeeper* storekeeper();
