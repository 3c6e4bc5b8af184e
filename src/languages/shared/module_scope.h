// Scoping for languages where a file is a module whose statements run in order
// and where a first assignment declares a name.
#pragma once

#include <set>
#include <string>
#include <vector>

#include "languages/shared/lowerer.h"

namespace elmcart {

// A lowerer for files that are modules: declarations go into a namespace named
// after the file's path, other statements into a function that stands for the
// module's body.
class ModuleLowerer : public SharedLowerer {
 public:
  using SharedLowerer::SharedLowerer;

 protected:
  // Opens the module's namespace; the names in `collapse` ("index", "__init__") stand for their folder.
  void openModule(TSNode root, std::string_view collapse);
  // The block of the module's body; made when first asked for.
  NodeId moduleBody(TSNode root);
  bool atModuleLevel() const { return functionDepth_ == 0 && classDepth_ == 0; }

  NodeId module_ = 0;
  NodeId moduleBlock_ = kNoNode;
  int functionDepth_ = 0, classDepth_ = 0;
};

}  // namespace elmcart
