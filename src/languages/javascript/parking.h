// Lowers what a file keeps on the global object (ECMA-262, 19.1).
#pragma once

#include "languages/javascript/outline.h"
#include "languages/javascript/parked.h"

namespace elmcart::script {

class ParkingScript : public OutlinedScript {
 protected:
  ParkingScript(const SharedGrammar& grammar, std::string_view text, const ScriptLore* lore, LoweredFile& file) : OutlinedScript(grammar, text, file), lore_(lore) {}

  // "name" for globalThis.name and its other names, "[key]" for globalThis[key], where some file of the
  // tree assigns to it; empty for all else.
  std::string parked(TSNode node) const;
  // Its variable, declared once a file; the files' are one.
  void parkedName(TSNode node, const std::string& name, NodeId parent, Role role);

 private:
  const ScriptLore* lore_;
  NodeId globalObject_ = kNoNode;
  std::set<std::string> parkedHere_;
};

}  // namespace elmcart::script
