// A base class template that gives each class deriving from it its one instance.
template <typename T>
class OneOf {
 public:
  static T& the() {
    static T instance;
    return instance;
  }
  OneOf(const OneOf&) = delete;

 protected:
  OneOf() = default;
};

class Lockkeeper : public OneOf<Lockkeeper> {  // entity: singleton Lockkeeper lazy language
 public:
  void open() { ++opened_; }

 private:
  friend class OneOf<Lockkeeper>;
  Lockkeeper() = default;
  int opened_ = 0;
};

class Bridgekeeper : public OneOf<Bridgekeeper> {  // entity: singleton Bridgekeeper lazy language // finding: single.open-constructor
 public:
  void lift() { ++lifted_; }

 private:
  int lifted_ = 0;
};

void passShip() {
  Lockkeeper::the().open();
  Bridgekeeper::the().lift();
}
