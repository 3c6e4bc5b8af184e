#include "rework/moves/surroundings.h"

#include "base/text.h"
#include "rework/writing.h"

namespace elmcart {

std::vector<Spot> ProgramAround::declarationsOf(Spot one) const {
  std::vector<Spot> out;
  Symbol symbol = p_.symbolAt(placeOf(one));
  bool function = symbol.is(Symbol::Sort::Function);
  if (!function && !symbol.is(Symbol::Sort::Variable)) return {one};
  for (Place place : function ? p_.functions[symbol.index()].declarations : p_.variables[symbol.index()].declarations) out.push_back({&p_.files[place.file], place.node});
  return out;
}

void ProgramAround::include(const LoweredFile& file, const LoweredFile& other, std::vector<FileEdit>& edits) {
  scan_.addInclude(indexOf(file), filled(p_.language(indexOf(file)).includeLine, {{"path", scan_.spellingOf(indexOf(other), indexOf(file))}}), edits);
}

Span ProgramAround::parameterList(Spot function) {
  Place place = placeOf(function);
  uint32_t end = scan_.parameterListEnd(place);
  if (end == 0) return {};
  std::string_view source = scan_.text(place.file);
  const LoweredFile& file = *function.file;
  size_t open = source.find('(', function->nameBegin + lastPart(file.name(function.node)).size());
  return {static_cast<uint32_t>(open), end};
}

void ProgramAround::addMember(Spot type, bool open, const std::string& text, std::vector<FileEdit>& edits) {
  Symbol symbol = p_.symbolAt(placeOf(type));
  if (!symbol.is(Symbol::Sort::Type)) return;
  if (open) scan_.addPublicMember(symbol.index(), text, edits);
  else scan_.addPrivateMember(symbol.index(), text, edits);
}

}  // namespace elmcart
