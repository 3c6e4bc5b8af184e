namespace piers {

// The fees of the pilots, in a layer of their own.
class PilotFees {  // entity: singleton PilotFees lazy language
 public:
  static PilotFees& fees();
  PilotFees(const PilotFees&) = delete;
  void enter(int coins) { total_ = coins; }
  void clear() { total_ = 0; }
  int total() const { return total_; }
  int twice() const;

 private:
  PilotFees() = default;
  int total_ = 0;
};

}  // namespace piers
