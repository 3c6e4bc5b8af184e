namespace piers {

class Flare {  // entity: shared-instance Flare lazy language
 public:
  void light() { lit_ = 1; }

 private:
  int lit_ = 0;
};

}  // namespace piers
