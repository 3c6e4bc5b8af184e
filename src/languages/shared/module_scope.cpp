#include "languages/shared/module_scope.h"

namespace elmcart {

void ModuleLowerer::openModule(TSNode root, std::string_view collapse) {
  module_ = build_.add(0, Kind::Namespace, Role::None, spanOf(root));
  build_.setName(module_, moduleName(collapse), 0);
}

NodeId ModuleLowerer::moduleBody(TSNode root) {
  if (moduleBlock_ == kNoNode) {
    NodeId body = function(root, module_, FunctionForm::Initialiser, "module body", 0, kStatic | kDefinition | kPrivate);
    moduleBlock_ = add(body, Kind::Block, Role::Body, root);
  }
  return moduleBlock_;
}

}  // namespace elmcart
