#include <algorithm>
#include <vector>

class Listener {
 public:
  virtual ~Listener() = default;
  virtual void heard(int signal) = 0;
};
