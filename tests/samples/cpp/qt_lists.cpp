// Taken out by a member of the list that only that library has.
template <class T>
class QList;

class UndoStack;

class UndoGroup {  // entity: singleton UndoGroup lazy language
 public:
  static UndoGroup& one();
  void add(UndoStack* stack);
  void remove(UndoStack* stack);
  void cleanAll();

 private:
  UndoGroup() {}
  UndoGroup(const UndoGroup&) = delete;
  QList<UndoStack*> stacks_;
};

class UndoStack {  // finding: lifetime.copied-subscriber
 public:
  UndoStack() { UndoGroup::one().add(this); }  // near: lifetime.dangling-subscriber
  ~UndoStack() { UndoGroup::one().remove(this); }
  void clean() { depth_ = 0; }

 private:
  int depth_ = 0;
};

UndoGroup& UndoGroup::one() {
  static UndoGroup group;
  return group;
}

void UndoGroup::add(UndoStack* stack) { stacks_.append(stack); }
void UndoGroup::remove(UndoStack* stack) {
  if (stacks_.removeAll(stack) == 0) return;
}
void UndoGroup::cleanAll() {
  for (UndoStack* stack : stacks_) stack->clean();  // finding: coupling.cycle
}
