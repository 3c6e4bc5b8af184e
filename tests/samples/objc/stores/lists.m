#import "stores.h"

// Near miss: no header says that there is an `a` elsewhere, so this one is the macro's.
void list(int n) {
    LIST_BEGIN(a, n);
    LIST_END(a);  // near: coupling.hidden-dependency
}
