#include "rework/broadcast.h"

#include <algorithm>
#include <set>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/parameter.h"
#include "rework/writing.h"

namespace elmcart {
namespace {

// So many lines that start something make a crowd worth a broadcaster.
constexpr size_t kFewest = 3;

class Broadcaster {
 public:
  Broadcaster(const Analysis& a, FunctionIndex function, PlanMemory& memory)
      : p_(a.program), survey_(a.survey), function_(function), memory_(memory),
        // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program), language_(a.program.language(a.program.functions[function].declarations.front().file)), n_(language_.announcing) {}

  std::string refusal() {
    const Function& fn = p_.functions[function_];
    if (!fn.definition.known()) return "it has no body in this tree";
    if (fn.modifiers & kInMacro) return "it is written by a macro";
    findLines();
    if (lines_.size() < kFewest) return "no " + std::to_string(kFewest) + " of its lines one after another start a shared object each";
    return "";
  }

  NextStep run() {
    findLines();
    return firstOf(1, memory_, [&](size_t) {
      Place definition = p_.functions[function_].definition;
      Attempt out{{}, write(), p_.path(definition), p_.line(definition)};
      out.step.kind = StepKind::Broadcast;
      out.step.subject = functionText(p_, function_);
      out.step.title = out.step.subject + " announces the start to " + counted(lines_.size(), "listener", "listeners") + ", in the order of its lines";
      out.step.callSites = lines_.size();
      out.step.edits = std::move(edits_);
      return out;
    });
  }

 private:
  // The longest run of statements of the body that each call something of a shared object.
  void findLines() {
    lines_.clear();
    Place definition = p_.functions[function_].definition;
    const LoweredFile& file = p_.file(definition);
    NodeId body = file.child(definition.node, Role::Body);
    if (body == kNoNode) return;
    std::set<std::pair<FileIndex, NodeId>> reached;
    for (const Entity& e : survey_.entities) {
      if (e.harmless || (e.kind != EntityKind::Singleton && e.kind != EntityKind::SharedInstance && e.kind != EntityKind::StaticHolder && e.kind != EntityKind::Ambient)) continue;
      for (const Consumer& c : e.consumers)
        if (c.in == function_ && (c.method != kNone || c.reach)) reached.insert({c.place.file, c.place.node});
    }
    std::vector<NodeId> run;
    auto end = [&] {
      if (run.size() > lines_.size()) lines_ = run;
      run.clear();
    };
    for (NodeId statement : children(file, body)) {
      if (starts(definition.file, statement, reached)) run.push_back(statement);
      else end();
    }
    end();
  }

  bool starts(FileIndex f, NodeId statement, const std::set<std::pair<FileIndex, NodeId>>& reached) {
    const LoweredFile& file = p_.files[f];
    NodeId call = file[statement].kind == Kind::ExpressionStatement ? file[statement].firstChild : statement;
    if (call == kNoNode || file[call].kind != Kind::Call) return false;
    bool any = reached.count({f, call}) > 0, waits = file[call].has(kInMacro);
    forEachNode(file, call, [&](NodeId n) {
      any |= reached.count({f, n}) > 0;
      waits |= file[n].kind == Kind::Await || file[n].kind == Kind::Lambda || file[n].kind == Kind::Assign || file[n].has(kInMacro);
    });
    return any && !waits;
  }

  std::string write() {
    const Function& fn = p_.functions[function_];
    FileIndex f = fn.definition.file;
    const LoweredFile& file = p_.files[f];
    std::string_view source = scan_.text(f);
    std::string newline = scan_.newlineOf(f), name = language_.handing && language_.handing->snake ? "start_up" : "startUp", type = "StartUp";
    if (p_.names.find(type) != 0 || p_.names.find("_" + type) != 0) return type + " means something already";
    NodeId body = file.child(fn.definition.node, Role::Body);
    if (holdsWord(source.substr(file[body].span.begin, file[body].span.size()), name)) return name + " means something already";
    std::vector<std::pair<std::string_view, std::string>> words = {{"class", type}, {"name", name}};
    std::string indent = scan_.indentOf({f, lines_.front()}), text = indent + filled(n_->make, words) + newline;
    for (NodeId line : lines_) {
      std::string statement(trim(scan_.nodeText({f, line})));
      if (statement.find('\n') != std::string::npos) return "line " + std::to_string(p_.line({f, line})) + " goes over several lines";
      if (!statement.empty() && statement.back() == ';') statement.pop_back();
      std::string_view listen = n_->listen;
      bool ends = !n_->expressionsOnly && source.substr(file[line].span.end - 1, 1) == ";";
      if (!ends && file[line].span.end < source.size() && source[file[line].span.end] == ';') ends = !n_->expressionsOnly;
      text += indent + filled(listen, {{"class", type}, {"name", name}, {"statement", statement + (ends ? ";" : "")}}) + newline;
    }
    text += indent + filled(n_->announce, words) + newline;
    uint32_t from = scan_.lineBegin(f, file[lines_.front()].span.begin), last = file[lines_.back()].span.end;
    if (!trim(source.substr(from, file[lines_.front()].span.begin - from)).empty()) return "its body stands on one line";
    // Comments between the lines would be lost.
    for (Span comment : file.comments)
      if (comment.begin >= from && comment.begin < scan_.contentEnd(f, last)) return "a comment stands among its lines: move it, and the lines can follow";
    uint32_t to = static_cast<uint32_t>(std::min(source.find('\n', last), source.size() - 1) + 1);
    edits_.push_back({file.path, {from, to}, text});
    return writeBroadcaster(words);
  }

  std::string writeBroadcaster(const std::vector<std::pair<std::string_view, std::string>>& words) {
    const Function& fn = p_.functions[function_];
    FileIndex f = fn.definition.file;
    std::string newline = scan_.newlineOf(f);
    Place before = fn.definition;
    if (n_->inClass) {
      if (fn.owner == kNone || p_.types[fn.owner].definition.file != f) return "the class of the function stands elsewhere";
    } else {
      // Outside of all that the function stands in, but for its namespace.
      for (Place up = p_.parent(before); up.node != kNoNode && up.node != 0; up = p_.parent(up))
        if (p_.node(up).kind == Kind::Type) before = up;
    }
    std::string indent = scan_.indentOf(before), unit = unitOfFile(scan_, f);
    if (n_->inClass) indent = memberIndent(p_, scan_, fn.owner), unit = unitIndent(p_, scan_, fn.owner);
    uint32_t at = scan_.withLinesAbove(f, scan_.lineBegin(f, p_.node(before).span.begin), {"//", "/*", "*", "@", "#[", "["});
    edits_.push_back({p_.files[f].path, {at, at}, indent + laidOut(scan_, filled(n_->broadcaster, words), f, indent, unit) + newline + newline});
    for (std::string_view import : {n_->import, n_->otherImport}) {
      if (import.empty() || scan_.text(f).find(import) != std::string_view::npos) continue;
      if (language_.owning) scan_.addInclude(f, std::string(import), edits_);
      else importLine(p_, scan_, f, std::string(import), edits_);
    }
    return "";
  }

  const Program& p_;
  const Survey& survey_;
  FunctionIndex function_;
  PlanMemory& memory_;
  SourceScan scan_;
  const Language& language_;
  const Announcing* n_ = nullptr;
  std::vector<NodeId> lines_;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string broadcastRefusal(const Analysis& analysis, size_t function) {
  PlanMemory memory;
  return Broadcaster(analysis, static_cast<FunctionIndex>(function), memory).refusal();
}

NextStep nextBroadcastStep(const Analysis& analysis, size_t function, PlanMemory& memory) { return Broadcaster(analysis, static_cast<FunctionIndex>(function), memory).run(); }

}  // namespace elmcart
