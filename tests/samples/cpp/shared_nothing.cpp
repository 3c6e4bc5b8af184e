// A value for nothing that many share; no other file can name its class.
class CellText {
 public:
  CellText();
  explicit CellText(int length);
  ~CellText();

 private:
  class Inner;
  Inner* inner_;
};

class CellText::Inner {
 public:
  Inner() : length(0) {}  // near: single.open-constructor
  static Inner* nothing() {
    if (!nothing_) nothing_ = new Inner;  // finding: thread.unguarded-creation
    return nothing_;
  }
  int length;
  static Inner* nothing_;
};

CellText::Inner* CellText::Inner::nothing_ = nullptr;  // entity: shared-instance nothing_ lazy none

CellText::CellText() : inner_(Inner::nothing()) {}
CellText::CellText(int length) : inner_(new Inner) { inner_->length = length; }
CellText::~CellText() {}

// A value that its own constructor sets by name: it stands where it is made.
struct CellMark {
  CellMark();
  int* mark;
  static int none;
  static CellMark empty;
};

int CellMark::none = 0;  // entity: static-field none eager language
CellMark CellMark::empty;  // entity: shared-instance empty eager language

CellMark::CellMark() {
  empty.mark = &none;  // near: init.reentrant
  mark = &none;
}
