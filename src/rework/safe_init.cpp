#include "rework/safe_init.h"

#include <algorithm>

#include "base/text.h"
#include "rework/writing.h"

namespace elmcart {
namespace {

class Steadier {
 public:
  Steadier(const Analysis& analysis, size_t entity)
      // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
      : p_(analysis.program), e_(analysis.survey.entities[entity]), scan_(analysis.program), s_(p_.language(e_.place.file).sound) {}

  std::string refusal() {
    if (e_.creation.time != CreationTime::Lazy || e_.creation.in == kNone || !e_.creation.place.known()) return "it is not created lazily by an accessor";
    if (e_.creation.guard == GuardSort::Language || e_.creation.guard == GuardSort::Once || e_.creation.guard == GuardSort::Atomic) return "its creation is sound already";
    if (e_.creation.guard == GuardSort::Lock && s_->body.empty()) return "its creation is sound already, under a lock";
    if (e_.creation.guard == GuardSort::DoubleCheck) return "its creation is sound already; a simpler form would save reading, not time";
    return shape();
  }

  NextStep run() {
    NextStep out;
    if (std::string reason = shape(); !reason.empty()) {
      out.byHand.push_back({p_.path(e_.creation.place), p_.line(e_.creation.place), reason, true});
      return out;
    }
    if (std::string reason = write(); !reason.empty()) {
      out.byHand.push_back({p_.path(e_.creation.place), p_.line(e_.creation.place), reason, true});
      return out;
    }
    out.found = true;
    out.step.kind = StepKind::SafeInit;
    out.step.subject = functionText(p_, e_.creation.in);
    out.step.title = out.step.subject + " creates " + e_.name + " once: " + std::string(s_->why);
    out.step.edits = std::move(edits_);
    out.step.callSites = 0;
    return out;
  }

 private:

  // The accessor does nothing but test, create and hand out: "" or what else it does.
  std::string shape() {
    const Function& fn = p_.functions[e_.creation.in];
    if (!fn.definition.known()) return "its accessor has no body in this tree";
    if (fn.mostArguments > 0) return "its accessor takes arguments";
    if (fn.modifiers & kInMacro) return "its accessor is written by a macro";
    const LoweredFile& file = p_.file(fn.definition);
    NodeId body = file.child(fn.definition.node, Role::Body);
    if (body == kNoNode) return "its accessor has no body in this tree";
    size_t returns = 0, assigns = 0;
    last_ = kNoNode;
    for (NodeId n = body + 1; n < file.nodes.size() && file[n].span.begin < file[body].span.end; ++n) {
      Place place{fn.definition.file, n};
      bool creating = n == e_.creation.place.node || p_.isInside(place, e_.creation.place.node);
      if (creating) continue;
      switch (file[n].kind) {
        case Kind::Return:
          ++returns;
          last_ = n;
          // Under the lock that guards the whole, but under no condition.
          for (NodeId up = file.parents[n]; up != body && up != kNoNode; up = file.parents[up])
            if (file[up].kind != Kind::Guard && file[up].kind != Kind::Block) last_ = kNoNode;
          break;
        case Kind::Assign: ++assigns; break;
        case Kind::Call: case Kind::Create: {
          // Taking the lock is no work of its own; nor is fetching what the slot holds.
          bool locking = false;
          for (NodeId up = n; up != kNoNode && up != body; up = file.parents[up]) locking |= file[up].role == Role::Lock || (file[up].kind == Kind::Variable && (p_.traits(place.file, p_.typeAt({place.file, up})) & kLockType));
          bool wraps = file[n].span.contains(file[e_.creation.place.node].span.begin);  // reset(new T), make_unique
          bool handsOut = last_ != kNoNode && p_.isInside(place, last_);
          if (!locking && !wraps && !handsOut && !isLockLine(place)) return "its accessor does more than create it (line " + std::to_string(p_.line(place)) + ")";
          break;
        }
        case Kind::Throw: case Kind::Loop: case Kind::Switch: case Kind::Await: case Kind::Try: case Kind::Update: return "its accessor does more than create it (line " + std::to_string(p_.line(place)) + ")";
        default: break;
      }
    }
    if (last_ == kNoNode || returns != 1) return "its accessor does not end with handing it out";
    if (assigns > 1) return "its accessor sets more than the slot";
    // Nobody else touches the slot.
    for (uint32_t u : p_.usesOfVariable[e_.slot])
      if (p_.uses[u].in != e_.creation.in && p_.functions[p_.uses[u].in == kNone ? e_.creation.in : p_.uses[u].in].form != FunctionForm::Initialiser) return "its slot is used outside of its accessor too (" + p_.path(p_.uses[u].place) + ":" + std::to_string(p_.line(p_.uses[u].place)) + ")";
    return "";
  }

  // std::lock_guard<std::mutex> hold(making_);
  bool isLockLine(Place place) {
    uint32_t begin = scan_.lineBegin(place.file, p_.node(place).span.begin);
    std::string_view source = scan_.text(place.file);
    std::string_view line = source.substr(begin, source.find('\n', begin) - begin);
    return line.find("lock") != std::string_view::npos || line.find("Lock") != std::string_view::npos;
  }

  std::string write() {
    const Function& fn = p_.functions[e_.creation.in];
    const Variable& slot = p_.variables[e_.slot];
    FileIndex f = fn.definition.file;
    const LoweredFile& file = p_.files[f];
    std::string_view source = scan_.text(f);
    Place body{f, file.child(fn.definition.node, Role::Body)};
    std::string slotName(p_.text(slot.name)), indent = scan_.indentOf(fn.definition), unit = slot.owner != kNone ? unitIndent(p_, scan_, slot.owner) : "    ";
    for (NodeId c : children(file, body.node)) {
      std::string inner = scan_.indentOf({f, c});
      if (inner.size() > indent.size()) unit = inner.substr(indent.size());
      break;
    }
    std::string typeText = e_.type != kNone ? std::string(p_.text(p_.types[e_.type].name)) : e_.typeText;
    // A class whose slot holds something else: as that is written there.
    Place declaration = slot.declarations.front();
    NodeId written = p_.file(declaration).child(declaration.node, Role::Type);
    if (written != kNoNode && p_.classBehind(declaration.file, slot.type) != e_.type) {
      typeText = scan_.nodeText({declaration.file, written});
      while (!typeText.empty() && (typeText.back() == '*' || typeText.back() == '?' || typeText.back() == ' ')) typeText.pop_back();
    }
    std::string capital = typeText;
    if (!capital.empty()) capital[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(capital[0])));
    std::string owner = slot.owner != kNone ? std::string(p_.text(p_.types[slot.owner].name)) : "";
    std::vector<std::pair<std::string_view, std::string>> words = {{"slot", slotName}, {"class", owner}, {"type", typeText}, {"Type", capital}, {"creation", scan_.nodeText(e_.creation.place)},
                                                                         {"lock", owner.empty() ? "_making" : owner + "._making"}};
    std::string newline = scan_.newlineOf(f);

    if (!s_->wrapped.empty()) {
      if (e_.creation.guard != GuardSort::None) return "it is locked already, in a way that cannot be mended line by line";
      // The test and the creation go inside; handing out stays.
      const Node& ret = file[last_];
      uint32_t from = bodyLinesBegin(p_, scan_, body), to = scan_.lineBegin(f, ret.span.begin);
      wrapLines(scan_, f, {from, to}, indent + unit, unit, filled(s_->wrapped, words), s_->wrapEnd, edits_);
      Place beside = slot.declarations.front();
      uint32_t below = static_cast<uint32_t>(std::min(scan_.text(beside.file).find('\n', p_.node(beside).span.end) + 1, scan_.text(beside.file).size()));
      if (!s_->lock.empty()) edits_.push_back({p_.path(beside), {below, below}, scan_.indentOf(beside) + filled(s_->lock, words) + newline});
      importLine(p_, scan_, beside.file, std::string(s_->import), edits_);
      return "";
    }

    // The last statement, with the new name in the slot's place.
    std::string once = filled(s_->once, words), handing = scan_.nodeText({f, last_});
    std::string returned;
    for (size_t at = 0; at < handing.size();) {
      size_t found = handing.find(slotName, at);
      bool word = found != std::string::npos && (found == 0 || !isWordByte(handing[found - 1])) && (found + slotName.size() == handing.size() || !isWordByte(handing[found + slotName.size()]));
      if (found == std::string::npos) {
        returned += handing.substr(at);
        break;
      }
      returned += handing.substr(at, found - at) + (word ? once : slotName);
      at = found + slotName.size();
    }
    // TideTable.table, this.table: the owner's name in front of it goes too.
    if (!owner.empty())
      for (const std::string& prefix : {owner + ".", owner + "::"})
        if (size_t at = returned.find(prefix + once); at != std::string::npos && once.find('.') != 0) returned.erase(at, prefix.size());
    if (!s_->unwrap.empty())
      if (size_t at = returned.find(once + std::string(s_->unwrap)); at != std::string::npos) returned.erase(at + once.size(), s_->unwrap.size());
    if (returned.find(once) == std::string::npos) return "what its accessor hands out is not the slot itself";
    if (returned.back() != ';' && source[file[last_].span.end] == ';') returned += ";";
    words.emplace_back("return", returned);
    std::string text = laidOut(scan_, filled(s_->body, words), f, indent + unit, unit);
    bool braces = source[p_.node(body).span.begin] == '{';
    if (!braces) return "the body of its accessor could not be read";
    bool oneLine = scan_.nodeText(fn.definition).find('\n') == std::string::npos;
    edits_.push_back({file.path, {p_.node(body).span.begin + 1, p_.node(body).span.end - 1}, oneLine && text.find('\n') == std::string::npos ? " " + text + " " : newline + indent + unit + text + newline + indent});
    // What makes the whole accessor a locked one has nothing to lock any more.
    std::string_view head = source.substr(p_.node(fn.definition).span.begin, p_.node(body).span.begin - p_.node(fn.definition).span.begin);
    if (size_t at = head.find("synchronized "); at != std::string_view::npos && at < p_.node(fn.definition).nameBegin - p_.node(fn.definition).span.begin) {
      uint32_t begin = p_.node(fn.definition).span.begin + static_cast<uint32_t>(at);
      edits_.push_back({file.path, {begin, begin + 13}, ""});
    }
    // The slot goes, with the lock that served the accessor alone.
    std::vector<Place> gone;
    for (Place place : slot.declarations) gone.push_back(place);
    if (slot.owner != kNone)
      for (VariableIndex v : p_.types[slot.owner].statics) {
        if (v == e_.slot || p_.usesOfVariable[v].empty() || !(p_.traits(p_.variables[v].declarations.front().file, p_.variables[v].type) & kLockType)) continue;
        bool only = true;
        for (uint32_t u : p_.usesOfVariable[v]) only &= p_.uses[u].in == e_.creation.in;
        if (only)
          for (Place place : p_.variables[v].declarations) gone.push_back(place);
      }
    bool declared = s_->declaration.empty();
    for (Place place : gone) {
      if (slot.storage == Storage::FunctionStatic) continue;  // went with the body
      auto lines = declarationLines(p_, scan_, place);
      if (!lines) return "the declaration of " + std::string(p_.nameOf(place)) + " shares its line with others";
      std::string instead;
      if (!declared && place == slot.declarations.front()) {
        instead = scan_.indentOf(place) + laidOut(scan_, filled(s_->declaration, words), place.file, scan_.indentOf(place), unit) + newline;
        declared = true;
        // Its own line only: what follows keeps its distance.
        uint32_t begin = scan_.lineBegin(place.file, p_.node(place).span.begin);
        size_t end = scan_.text(place.file).find('\n', p_.node(place).span.end);
        *lines = {begin, static_cast<uint32_t>(end == std::string_view::npos ? scan_.text(place.file).size() : end + 1)};
      }
      edits_.push_back({p_.path(place), *lines, instead});
    }
    return declared ? "" : "its slot's declaration could not be read";
  }

  const Program& p_;
  const Entity& e_;
  SourceScan scan_;
  const Sound* s_ = nullptr;
  NodeId last_ = kNoNode;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string safeInitRefusal(const Analysis& analysis, size_t entity) { return Steadier(analysis, entity).refusal(); }

NextStep nextSafeInitStep(const Analysis& analysis, size_t entity, PlanMemory& memory) {
  NextStep out = Steadier(analysis, entity).run();
  if (out.found && memory.refused.count(out.step.key())) out.found = false;
  return out;
}

}  // namespace elmcart
