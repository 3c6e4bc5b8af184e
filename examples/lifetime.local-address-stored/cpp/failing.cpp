// The berth is gone when the function returns.
class Berth {
 public:
  int number = 0;
};
Berth* current = nullptr;

void moor() {
  Berth berth;
  berth.number = 4;
  current = &berth;
}
