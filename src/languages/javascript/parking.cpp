#include "languages/javascript/parking.h"

namespace elmcart::script {

std::string ParkingScript::parked(TSNode node) const {
  bool member = is(node, "member_expression");
  if (!member && !is(node, "subscript_expression")) return "";
  std::string_view object = text(field(node, f_.object));
  if (object != "globalThis" && object != "window" && object != "global") return "";
  std::string name = member ? std::string(text(field(node, f_.property))) : std::string();
  if (!member) {
    NodeList kids = named(node);
    if (kids.size() != 2) return "";
    std::string_view key = text(kids[1]);
    bool quoted = is(kids[1], "string") && key.size() > 2;
    name = quoted ? std::string(key.substr(1, key.size() - 2)) : "[" + std::string(key) + "]";
  }
  return lore_ && lore_->parked.count(name) ? name : "";
}

void ParkingScript::parkedName(TSNode node, const std::string& name, NodeId parent, Role role) {
  if (globalObject_ == kNoNode) {
    globalObject_ = build_.add(0, Kind::Namespace, Role::None, spanOf(node));
    build_.setName(globalObject_, "globalThis", begin(node));
  }
  if (parkedHere_.insert(name).second) {
    NodeId id = add(globalObject_, Kind::Variable, Role::Member, node);
    build_.setName(id, name, begin(node));
    build_[id].modifiers = kExtern | kPublic;
  }
  NodeId id = add(parent, Kind::Name, role, node);
  build_.setName(id, "globalThis::" + name, begin(node));
}

}  // namespace elmcart::script
