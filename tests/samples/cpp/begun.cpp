// A thread's own record by way of a setter; an object that enters itself through a cast.
struct Scratch {
  int used = 0;
};

thread_local Scratch* scratch = nullptr;  // entity: thread-local scratch lazy language

inline void setScratch(Scratch* one) { scratch = one; }

Scratch* takeScratch() {
  if (scratch) return scratch;
  auto* fresh = new Scratch;
  setScratch(fresh);
  return fresh;
}

void useScratch() { ++takeScratch()->used; }

template <typename T>
class Entered {
 public:
  Entered() { slot_ = static_cast<T*>(this); }  // finding: single.replaceable
  ~Entered() { slot_ = nullptr; }
  Entered(const Entered&) = delete;
  static T* one() { return slot_; }  // finding: single.may-return-nothing

 private:
  static T* slot_;
};

class Winch : public Entered<Winch> {  // entity: singleton Winch lazy none  // finding: single.open-constructor
 public:
  void turn() { ++turns_; }

 private:
  int turns_ = 0;
};
template <>
Winch* Entered<Winch>::slot_ = nullptr;

void install() {
  if (!Winch::one()) new Winch;  // finding: thread.unguarded-creation
}

void raise() {
  if (Winch::one()) Winch::one()->turn();
}
