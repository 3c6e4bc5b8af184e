// Nothing says that the caller must free the buoy, and he does not.
class Buoy {
 public:
  int swing() { return ++swings_; }

 private:
  int swings_ = 0;
};

Buoy* newBuoy() { return new Buoy; }

int lay() {
  Buoy* buoy = newBuoy();
  return buoy->swing();
}
