// Lowers a Dart file. Sections are of the Dart Programming Language
// Specification, version 2.
//
// The grammar keeps what follows an operand (".name", "(…)", "[…]") beside it
// and not around it, so an expression is a run of sibling nodes; see chain().
#include <algorithm>

#include "base/text.h"
#include "languages/dart/cut_off.h"
#include "languages/dart/dart.h"
#include "languages/dart/shapes.h"
#include "languages/shared/lowerer.h"

extern "C" const TSLanguage* tree_sitter_dart(void);

namespace elmcart {
namespace {

using namespace dart;
using Nodes = std::vector<TSNode>;

class DartLowerer : public SharedLowerer {
 public:
  using SharedLowerer::SharedLowerer;

 private:
  // ----- the file: a library or a part of one (18, Libraries)

  void unit(TSNode root) override {
    std::string library = moduleName();
    for (TSNode child : named(root))
      if (is(child, "part_of_directive")) library = libraryOf(child);
    home_ = build_.add(0, Kind::Namespace, Role::None, spanOf(root));
    build_.setName(home_, library, 0);
    members(all(root), home_);
  }

  std::string libraryOf(TSNode partOf) {
    TSNode uri = childOfType(partOf, "uri");
    if (!isNull(uri)) return modulePath(text(uri));
    // By the library's name: taken to be the file of that name beside this one.
    TSNode name = childOfType(partOf, "dotted_identifier_list");
    std::string_view last = isNull(name) ? std::string_view{} : text(name);
    if (size_t dot = last.rfind('.'); dot != std::string_view::npos) last = last.substr(dot + 1);
    return joinWith(pathFromHere(last), "::");
  }

  std::string modulePath(std::string_view quoted) {
    std::string_view written = quoted.size() >= 2 ? quoted.substr(1, quoted.size() - 2) : quoted;
    if (written.size() > 5 && written.substr(written.size() - 5) == ".dart") written.remove_suffix(5);
    if (written.substr(0, 5) == "dart:") return "(package)::" + std::string(written);
    if (written.substr(0, 8) == "package:") {
      // package:office/books.dart is lib/books.dart of the package.
      size_t slash = written.find('/');
      std::string out = "lib";
      for (std::string_view rest = slash == std::string_view::npos ? std::string_view{} : written.substr(slash); !rest.empty();) {
        rest.remove_prefix(1);
        size_t next = rest.find('/');
        out += "::" + std::string(rest.substr(0, next));
        rest = next == std::string_view::npos ? std::string_view{} : rest.substr(next);
      }
      return out;
    }
    return joinWith(pathFromHere(written), "::");
  }

  void import(TSNode node) {
    TSNode specification = childOfType(node, "import_specification");
    TSNode holder = isNull(specification) ? node : specification;
    TSNode uri = childOfType(holder, "configurable_uri");
    if (isNull(uri)) uri = childOfType(holder, "uri");
    if (!isNull(uri) && !is(uri, "uri") && !isNull(childOfType(uri, "uri"))) uri = childOfType(uri, "uri");
    std::string path = modulePath(text(uri));
    build_.setName(add(home_, Kind::Import, Role::None, node), path, begin(node));
    TSNode prefix{};
    std::vector<TSNode> shown;
    for (TSNode child : named(holder)) {
      if (is(child, "identifier")) prefix = child;
      if (is(child, "combinator") && text(child).substr(0, 4) == "show")
        for (TSNode name : named(child)) shown.push_back(name);
    }
    if (!isNull(prefix)) return makeVisible(node, text(prefix), path);
    for (TSNode name : shown) makeVisible(name, text(name), path + "::" + std::string(text(name)));
    if (!shown.empty()) return;
    NodeId id = add(home_, Kind::Using, Role::None, node);
    build_.setName(id, path, begin(node));
    build_[id].modifiers |= kWholeScope | (text(node).starts_with("export") ? kPublic : 0u);
  }

  void makeVisible(TSNode node, std::string_view local, const std::string& target) {
    NodeId id = add(home_, Kind::Using, Role::None, node);
    build_.setName(id, local, begin(node));
    build_.setName(add(id, Kind::TypeRef, Role::Type, node), target, begin(node));
  }

  // ----- declarations

  static uint32_t visibility(std::string_view name) { return !name.empty() && name[0] == '_' ? kPrivate : kPublic; }

  // What stands before the name in a declaration: its modifiers and the span of its type.
  struct Head {
    uint32_t bits = 0;
    bool late = false;
    Span type{0, 0};
  };
  bool isTypePart(TSNode node) const { return is(node, "type_identifier") || is(node, "type_arguments") || is(node, "function_type") || is(node, "void_type") || is(node, "nullable_type"); }
  void into(Head& head, TSNode node) {
    std::string_view word = text(node);
    if (word == "static") head.bits |= kStatic;
    else if (word == "final" || word == "const") head.bits |= kConst | (word == "const" ? kConstant : 0u);
    else if (word == "late") head.late = true;
    else if (isTypePart(node)) head.type = {head.type.empty() ? begin(node) : head.type.begin, ts_node_end_byte(node)};
  }

  // The members of a library, class or extension: in the grammar a signature
  // and its body, or a type and its names, stand side by side.
  void members(const Nodes& kids, NodeId parent) {
    Head head;
    for (size_t i = 0; i < kids.size(); ++i) {
      TSNode kid = kids[i];
      TSNode following = i + 1 < kids.size() && is(kids[i + 1], "function_body") ? kids[i + 1] : TSNode{};
      if (is(kid, "function_body")) continue;
      if (text(kid) == ";") {
        head = {};
      } else if (is(kid, "declaration") || is(kid, "method_signature")) {
        declaration(kid, following, parent);
        head = {};
      } else if (isSignature(kid)) {
        signature(kid, kid, following, parent, head);
        head = {};
      } else if (isNameList(kid)) {
        names(kid, head, parent);
      } else if (!ts_node_is_named(kid) || isTypePart(kid) || is(kid, "final_builtin") || is(kid, "const_builtin") || is(kid, "inferred_type")) {
        into(head, kid);
      } else {
        visit(kid, parent, Role::None);
        head = {};
      }
    }
  }

  static bool endsIn(std::string_view word, std::string_view end) { return word.size() >= end.size() && word.substr(word.size() - end.size()) == end; }
  bool isSignature(TSNode node) const { return endsIn(ts_node_type(node), "_signature"); }
  bool isNameList(TSNode node) const { return is(node, "initialized_identifier_list") || is(node, "static_final_declaration_list") || is(node, "identifier_list"); }

  void declaration(TSNode node, TSNode following, NodeId parent) {
    Head head;
    for (TSNode kid : all(node)) {
      if (isSignature(kid)) signature(node, kid, following, parent, head);
      else if (isNameList(kid)) names(kid, head, parent);
      else into(head, kid);
    }
  }

  // name, name = value, …
  void names(TSNode list, const Head& head, NodeId parent) {
    bool field = file_[parent].kind == Kind::Type && !(head.bits & (kStatic | kConstant));
    for (TSNode one : named(list)) {
      if (g_.shapeOf(one) == Shape::Comment) continue;
      Nodes parts = all(one);
      TSNode name = parts.empty() ? one : parts.front();
      NodeId id = add(parent, Kind::Variable, Role::Member, one);
      build_.setName(id, qualified(name), begin(name));
      // 8.1: made when first asked for.
      VariableForm form = head.late && parts.size() > 1 ? VariableForm::LazyUnguarded : parts.size() > 1 && !field && !(head.bits & kConstant) ? VariableForm::Lazy : VariableForm::Plain;
      build_[id].detail = static_cast<uint8_t>(form);
      build_[id].modifiers = head.bits | visibility(text(name)) | kDefinition | (file_[parent].kind == Kind::Type && (head.bits & kConstant) ? kStatic : 0u);
      if (!head.type.empty()) typeRef(head.type, id, Role::Type);
      for (const Nodes& value : runs(one))
        if (!ts_node_eq(value.front(), name) && !(value.size() == 1 && text(value.front()) == "null")) chain(value, id, Role::Initialiser, text(name));
      pending_.clear();
    }
  }

  std::string qualified(TSNode name) const { return extending_.empty() ? std::string(text(name)) : extending_ + "::" + std::string(text(name)); }

  void signature(TSNode whole, TSNode sign, TSNode bodyNode, NodeId parent, Head head) {
    // A name may have two parts: Class.name.
    Nodes words;
    TSNode list{};
    for (TSNode kid : all(sign)) {
      if (is(kid, "identifier")) words.push_back(kid);
      else if (is(kid, "qualified"))
        for (TSNode part : named(kid)) words.push_back(part);
      else if (is(kid, "formal_parameter_list")) list = kid;
      else if (words.empty()) into(head, kid);
    }
    bool inClass = file_[parent].kind == Kind::Type;
    std::string_view form = ts_node_type(sign);
    bool constructs = form.find("constructor") != std::string_view::npos;
    if (form == "operator_signature") {
      NodeId id = function(whole, parent, FunctionForm::Operator, "operator", begin(sign), head.bits | kPublic);
      return finish(id, sign, list, bodyNode);
    }
    if (words.empty()) return;
    TSNode name = words.back();
    if (constructs) {
      bool makes = form == "factory_constructor_signature" || form == "redirecting_factory_constructor_signature";
      bool plain = words.size() < 2;
      uint32_t bits = visibility(plain ? std::string_view("new") : text(name));
      // 10.7.2: a factory is called in place of the constructor; one with a name is an access point like any other.
      NodeId id = function(whole, parent, makes ? (plain ? FunctionForm::Factory : FunctionForm::Function) : FunctionForm::Constructor, plain ? std::string_view("new") : text(name), begin(words.front()), bits | (makes ? uint32_t{kStatic} : 0u) | kDefinition);
      if (makes) typeRefNamed(text(words.front()), words.front(), id, Role::Type);
      return finish(id, whole, list, bodyNode);
    }
    FunctionForm kind = form == "getter_signature" ? FunctionForm::Getter : form == "setter_signature" ? FunctionForm::Setter : FunctionForm::Function;
    std::string called = kind == FunctionForm::Setter ? (extending_.empty() ? "" : extending_ + "::") + "set " + std::string(text(name)) : qualified(name);
    bool empty = isNull(bodyNode) && inClass && !hasToken(whole, "external");
    NodeId id = function(whole, parent, kind, called, begin(name), head.bits | visibility(text(name)) | (empty ? kAbstract : 0u));
    if (!head.type.empty()) typeRef(head.type, id, Role::Type);
    finish(id, whole, list, bodyNode);
  }

  // Parameters, initialisers and body.
  void finish(NodeId fn, TSNode whole, TSNode list, TSNode bodyNode) {
    if (!isNull(list)) parameterList(list, fn);
    if (TSNode inits = childOfType(whole, "initializers"); !isNull(inits))
      for (TSNode entry : named(inits)) initializer(entry, fn);
    // : this(…), to another constructor of the class
    if (TSNode redirected = childOfType(whole, "redirection"); !isNull(redirected)) {
      NodeId id = add(fn, Kind::FieldInit, Role::FieldInit, redirected);
      build_.setName(id, text(firstNamed(childOfType(whole, "constructor_signature"))), begin(redirected));
      if (TSNode given = childOfType(redirected, "arguments"); !isNull(given)) arguments(given, id);
    }
    if (!isNull(bodyNode)) functionBody(bodyNode, fn);
  }

  void initializer(TSNode entry, NodeId fn) {
    TSNode inner = childOfType(entry, "field_initializer");
    if (!isNull(inner)) {
      TSNode name = childOfType(inner, "identifier");
      if (isNull(name)) return;
      NodeId id = add(fn, Kind::FieldInit, Role::FieldInit, inner);
      build_.setName(id, text(name), begin(name));
      bool value = false;
      Nodes run;
      for (TSNode kid : all(inner)) {
        if (value && ts_node_is_named(kid)) run.push_back(kid);
        value |= text(kid) == "=";
      }
      if (!run.empty()) chain(run, id, Role::Argument);
    } else if (TSNode list = childOfType(entry, "arguments"); !isNull(list)) {
      NodeId id = add(fn, Kind::FieldInit, Role::FieldInit, entry);
      build_.setName(id, "super", begin(entry));
      arguments(list, id);
    }
  }

  void parameterList(TSNode list, NodeId fn) {
    NodeId last = kNoNode;
    bool value = false, optional = false;
    Nodes run;
    auto flush = [&] {
      if (last != kNoNode && !run.empty()) chain(run, last, Role::Initialiser);
      // Left out, it is null.
      else if (last != kNoNode && optional) build_[add(last, Kind::Literal, Role::Initialiser, list)].detail = static_cast<uint8_t>(LiteralForm::Null);
      run.clear();
      last = kNoNode;
      value = false;
    };
    auto walk = [&](auto& self, TSNode from, bool mayBeLeftOut) -> void {
      bool required = false;
      for (TSNode kid : all(from)) {
        if (is(kid, "optional_formal_parameters")) {
          flush();
          self(self, kid, true);
        } else if (is(kid, "formal_parameter")) {
          flush();
          optional = mayBeLeftOut && !required;
          last = parameterNode(kid, fn);
          required = false;
        } else if (text(kid) == "required") {
          flush();
          required = true;
        } else if (text(kid) == "=" || text(kid) == ":") {
          value = true;
        } else if (value && ts_node_is_named(kid)) {
          run.push_back(kid);
        }
      }
      flush();
    };
    walk(walk, list, false);
  }

  NodeId parameterNode(TSNode node, NodeId fn) {
    NodeId id = add(fn, Kind::Parameter, Role::Parameter, node);
    TSNode holder = childOfType(node, "constructor_param");
    bool field = !isNull(holder);
    if (!field) holder = childOfType(node, "super_formal_parameter");
    if (isNull(holder)) holder = node;
    TSNode name{};
    Head head;
    for (TSNode kid : all(holder)) {
      if (is(kid, "identifier")) name = kid;
      else into(head, kid);
    }
    if (isNull(name)) name = holder;
    build_.setName(id, text(name), begin(name));
    if (!head.type.empty()) typeRef(head.type, id, Role::Type);
    if (field) {  // this.name: the field takes the argument
      NodeId init = add(fn, Kind::FieldInit, Role::FieldInit, holder);
      build_.setName(init, text(name), begin(name));
      addName(init, Role::Argument, name);
    }
    return id;
  }

  void functionBody(TSNode node, NodeId fn) {
    if (file_[fn].kind == Kind::Function) build_[fn].modifiers |= kDefinition;
    // The grammar keeps a signature and its body apart.
    build_[fn].span.end = std::max(build_[fn].span.end, static_cast<uint32_t>(ts_node_end_byte(node)));
    TSNode block = childOfType(node, "block");
    if (!isNull(block)) return visit(block, fn, Role::Body);
    Nodes run;
    bool value = false;
    for (TSNode kid : all(node)) {
      if (value && ts_node_is_named(kid)) run.push_back(kid);
      value |= text(kid) == "=>";
    }
    NodeId body = add(fn, Kind::Block, Role::Body, node);
    if (run.empty()) return;
    if (run.size() == 1 && (g_.shapeOf(run[0]) == Shape::Own && (g_.ownOf(run[0]) == kThrow))) visit(run[0], body, Role::None);
    else chain(run, add(body, Kind::Return, Role::None, node), Role::Value);
    flushPending(body);
  }

  void classNode(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name);
    if (isNull(name)) name = childOfType(node, "identifier");
    if (isNull(name)) return;  // class A = B with C;
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(hasToken(node, "interface") ? TypeForm::Interface : TypeForm::Class);
    build_[id].modifiers = visibility(text(name)) | kDefinition | (hasToken(node, "abstract") ? kAbstract : 0u) | (hasToken(node, "final") || hasToken(node, "sealed") ? kFinal : 0u);
    build_.setName(id, text(name), begin(name));
    annotate(node, id);
    if (TSNode list = childOfType(node, "type_parameters"); !isNull(list))
      for (TSNode one : named(list)) {
        TSNode first = firstNamed(one);
        build_.setName(add(id, Kind::TypeRef, Role::TypeParameter, one), text(isNull(first) ? one : first), begin(one));
      }
    bases(childOfType(node, "superclass"), id);
    bases(childOfType(node, "interfaces"), id);
    TSNode inner = field(node, f_.body);
    if (isNull(inner)) inner = childOfType(node, "class_body");
    if (!isNull(inner)) members(all(inner), id);
  }

  void bases(TSNode list, NodeId id) {
    if (isNull(list)) return;
    for (TSNode one : named(list)) {
      if (is(one, "mixins")) bases(one, id);
      if (!is(one, "type_identifier")) continue;
      if (NodeId ref = typeRef(one, id, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
    }
  }

  // ----- expressions: runs of siblings

  // The runs of named nodes between a node's tokens and operators.
  std::vector<Nodes> runs(TSNode node) const {
    std::vector<Nodes> out(1);
    for (TSNode kid : all(node)) {
      if (g_.shapeOf(kid) == Shape::Comment && ts_node_is_named(kid)) continue;
      if (!ts_node_is_named(kid) || isOperator(kid)) {
        if (!out.back().empty()) out.emplace_back();
      } else {
        out.back().push_back(kid);
      }
    }
    if (out.back().empty()) out.pop_back();
    return out;
  }
  bool isOperator(TSNode node) const { return endsIn(ts_node_type(node), "_operator") || is(node, "label") || is(node, "type_arguments"); }

  void eachRun(TSNode node, NodeId parent, Role role) {
    for (const Nodes& run : runs(node)) chain(run, parent, role);
  }

  // An operand and what follows it, the last outermost. `made` is the variable
  // that takes the value, if one does.
  void chain(const Nodes& run, NodeId parent, Role role, std::string_view made = {}) {
    size_t plain = run.size();
    while (plain > 0 && is(run[plain - 1], "cascade_section")) --plain;
    if (plain == 0) return;
    links(run, plain, parent, role);
    // object..f()..g(): each on the same object, whose name must be known.
    for (size_t i = plain; i < run.size(); ++i) pending_.push_back({Nodes(run.begin(), run.begin() + static_cast<long>(plain)), run[i], std::string(made)});
  }

  void links(const Nodes& run, size_t n, NodeId parent, Role role) {
    if (n == 0 || ++depth_ > 400) {
      if (n > 0) --depth_, unread(parent, run[n - 1]);
      return;
    }
    link(run, n, parent, role);
    --depth_;
  }

  void link(const Nodes& run, size_t n, NodeId parent, Role role) {
    TSNode last = run[n - 1];
    if (n == 1) return visit(last, parent, role);
    TSNode inner = is(last, "selector") ? firstNamed(last) : last;
    if (isNull(inner)) return links(run, n - 1, parent, role);  // value!
    if (is(inner, "argument_part")) {
      NodeId id = add(parent, Kind::Call, role, last);
      build_[id].span.begin = begin(run[0]);
      links(run, n - 1, id, Role::Callee);
      arguments(childOfType(inner, "arguments"), id);
      return;
    }
    TSNode part = firstNamed(inner);
    if (is(part, "index_selector")) {
      NodeId id = add(parent, Kind::Index, role, last);
      build_[id].span.begin = begin(run[0]);
      links(run, n - 1, id, Role::Receiver);
      eachRun(part, id, Role::Argument);
      return;
    }
    if (is(part, "identifier")) {
      NodeId id = add(parent, Kind::Member, role, last);
      build_[id].span.begin = begin(run[0]);
      links(run, n - 1, id, Role::Receiver);
      build_.setName(id, text(part), begin(part));
      return;
    }
    links(run, n - 1, parent, role);
    if (!isNull(inner)) visitChildren(inner, parent);
  }

  struct Cascade {
    Nodes object;
    TSNode section;
    std::string made;
  };

  // The object that a cascade acts on, once more, when naming it again means nothing new.
  void cascadeObject(const Cascade& cascade, NodeId parent, Role role) {
    if (!cascade.made.empty()) {
      NodeId id = add(parent, Kind::Name, role, cascade.object.front());
      build_.setName(id, cascade.made, begin(cascade.object.front()));
      return;
    }
    bool names = true;
    for (size_t i = 0; i < cascade.object.size(); ++i) names &= i == 0 ? g_.shapeOf(cascade.object[0]) == Shape::Name || g_.shapeOf(cascade.object[0]) == Shape::This : text(cascade.object[i])[0] == '.';
    if (names) links(cascade.object, cascade.object.size(), parent, role);
    else add(parent, Kind::Other, role, cascade.object.front());
  }

  void flushPending(NodeId parent) {
    std::vector<Cascade> todo;
    todo.swap(pending_);
    for (const Cascade& one : todo) {
      NodeId statement = add(parent, Kind::ExpressionStatement, Role::None, one.section);
      // ..name, ..name(…), ..name = value, ..[key] = value, ..name.other(…)
      Nodes parts = all(one.section);
      size_t assignment = parts.size();
      for (size_t i = 0; i < parts.size(); ++i)
        if (!ts_node_is_named(parts[i]) && endsIn(text(parts[i]), "=")) assignment = std::min(assignment, i);
      auto target = [&](NodeId into, Role role) { cascadeLink(one, parts, std::min(assignment, parts.size()), into, role); };
      if (assignment < parts.size()) {
        NodeId id = add(statement, Kind::Assign, Role::None, one.section);
        build_[id].detail = static_cast<uint8_t>(text(parts[assignment]).size() > 1 ? AssignForm::Compound : AssignForm::Plain);
        target(id, Role::Target);
        Nodes value;
        for (size_t i = assignment + 1; i < parts.size(); ++i)
          if (ts_node_is_named(parts[i])) value.push_back(parts[i]);
        chain(value, id, Role::Value);
      } else {
        target(statement, Role::None);
      }
      if (!pending_.empty()) flushPending(parent);
    }
  }

  void cascadeLink(const Cascade& cascade, const Nodes& parts, size_t n, NodeId parent, Role role) {
    while (n > 0 && !ts_node_is_named(parts[n - 1])) --n;
    if (n == 0) return cascadeObject(cascade, parent, role);
    TSNode last = parts[n - 1];
    TSNode part = is(last, "selector") || is(last, "cascade_selector") || endsIn(ts_node_type(last), "assignable_selector") ? firstNamed(last) : last;
    if (is(part, "argument_part")) {
      NodeId id = add(parent, Kind::Call, role, last);
      cascadeLink(cascade, parts, n - 1, id, Role::Callee);
      arguments(childOfType(part, "arguments"), id);
      return;
    }
    while (!isNull(part) && endsIn(ts_node_type(part), "assignable_selector")) part = firstNamed(part);
    if (is(part, "index_selector")) {
      NodeId id = add(parent, Kind::Index, role, last);
      cascadeLink(cascade, parts, n - 1, id, Role::Receiver);
      eachRun(part, id, Role::Argument);
      return;
    }
    NodeId id = add(parent, Kind::Member, role, last);
    cascadeLink(cascade, parts, n - 1, id, Role::Receiver);
    if (!isNull(part)) build_.setName(id, text(part), begin(part));
  }

  void statements(TSNode block, NodeId parent) override {
    for (TSNode kid : named(block)) {
      visit(kid, parent, Role::None);
      if (!pending_.empty()) flushPending(parent);
    }
  }

  // Operands between operators, left to right.
  void operators(TSNode node, NodeId parent, Role role) {
    std::vector<Nodes> sides = runs(node);
    std::string op;
    for (TSNode kid : all(node))
      if (isOperator(kid) || !ts_node_is_named(kid)) op = std::string(trim(text(kid)));
    auto one = [&](const Nodes& run) { return run.size() == 1 ? run.front() : TSNode{}; };
    if (sides.size() == 2 && (op == "==" || op == "!=")) {
      NullTestForm form = op == "==" ? NullTestForm::IsNull : NullTestForm::IsNotNull;
      for (int k = 0; k < 2; ++k)
        if (TSNode word = one(sides[static_cast<size_t>(k)]); !isNull(word) && isNothing(word)) {
          NodeId id = add(parent, Kind::NullTest, role, node);
          build_[id].detail = static_cast<uint8_t>(form);
          chain(sides[static_cast<size_t>(1 - k)], id, Role::Operand);
          return;
        }
    }
    bool logic = op == "&&" || op == "||";
    bool compare = op == "==" || op == "!=" || op == "<" || op == ">" || op == "<=" || op == ">=";
    NodeId id = add(parent, logic ? Kind::Logic : compare ? Kind::Compare : Kind::Other, role, node);
    if (logic) build_[id].detail = static_cast<uint8_t>(op == "&&" ? LogicForm::And : LogicForm::Or);
    else if (!compare) build_.setName(id, op, begin(node));
    for (const Nodes& side : sides) chain(side, id, Role::Operand);
  }

  void assign(TSNode node, NodeId parent, Role role) {
    Nodes left, right;
    std::string_view op;
    for (TSNode kid : all(node)) {
      bool token = !ts_node_is_named(kid);
      if (op.empty() && token && endsIn(text(kid), "=")) op = text(kid);
      else if (!token && g_.shapeOf(kid) != Shape::Comment) (op.empty() ? left : right).push_back(kid);
    }
    if (op == "?\?=") {
      // Nothing there yet: assigned.
      bool value = role != Role::None;
      NodeId branch = add(parent, value ? Kind::Conditional : Kind::If, role, node);
      NodeId test = add(branch, Kind::NullTest, Role::Condition, node);
      build_[test].detail = static_cast<uint8_t>(value ? NullTestForm::IsNotNull : NullTestForm::IsNull);
      chain(left, test, Role::Operand);
      NodeId at = branch;
      if (value) chain(left, branch, Role::Then);
      else at = add(add(branch, Kind::Block, Role::Then, node), Kind::ExpressionStatement, Role::None, node);
      NodeId assignment = add(at, Kind::Assign, value ? Role::Else : Role::None, node);
      chain(left, assignment, Role::Target);
      chain(right, assignment, Role::Value);
      return;
    }
    NodeId id = add(parent, Kind::Assign, role, node);
    build_[id].detail = static_cast<uint8_t>(op.size() > 1 ? AssignForm::Compound : AssignForm::Plain);
    chain(left, id, Role::Target);
    chain(right, id, Role::Value);
  }

  // Type.name(…), new Type(…), const Type.name(…)
  void create(TSNode node, NodeId parent, Role role) {
    TSNode type = childOfType(node, "type_identifier"), name = childOfType(node, "identifier"), list = childOfType(node, "arguments");
    if (isNull(type)) return;
    if (isNull(name)) {
      NodeId id = add(parent, Kind::Create, role, node);
      build_[id].detail = static_cast<uint8_t>(CreateForm::Heap);
      if (NodeId ref = typeRef(type, id, Role::Type); ref != kNoNode) build_[ref].modifiers &= ~kManaged;
      arguments(list, id);
      return;
    }
    NodeId id = add(parent, Kind::Call, role, node);
    NodeId callee = add(id, Kind::Member, Role::Callee, node);
    addName(callee, Role::Receiver, type);
    build_.setName(callee, text(name), begin(name));
    arguments(list, id);
  }

  void local(TSNode node, NodeId parent) {
    TSNode definition = is(node, "local_variable_declaration") ? firstNamed(node) : node;
    Head head;
    Nodes run;
    TSNode name{};
    bool value = false;
    auto declare = [&](TSNode at) {
      if (isNull(name)) return;
      NodeId id = add(parent, Kind::Variable, Role::None, at);
      build_.setName(id, text(name), begin(name));
      build_[id].modifiers = (head.bits & kConst) | kDefinition;
      if (!head.type.empty()) typeRef(head.type, id, Role::Type);
      if (!run.empty()) chain(run, id, Role::Initialiser, text(name));
    };
    for (TSNode kid : all(definition)) {
      if (value && ts_node_is_named(kid) && !is(kid, "initialized_identifier")) {
        run.push_back(kid);
      } else if (text(kid) == "=") {
        value = true;
      } else if (is(kid, "initialized_identifier")) {
        declare(definition);
        Nodes parts = named(kid);
        name = parts.empty() ? kid : parts.front();
        run.assign(parts.empty() ? parts.begin() : parts.begin() + 1, parts.end());
        value = false;
      } else if (is(kid, "identifier")) {
        name = kid;
      } else {
        into(head, kid);
      }
    }
    declare(definition);
  }

  void forLoop(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Loop, role, node);
    TSNode head = childOfType(node, "for_loop_parts");
    if (!isNull(head)) {
      TSNode declared = childOfType(head, "local_variable_declaration");
      if (!isNull(declared)) visit(declared, id, Role::None);
      TSNode name = field(head, f_.name);
      bool in = false, second = !isNull(declared);  // whose own `;` is a part of it
      Nodes run;
      for (TSNode kid : all(head)) {
        bool token = !ts_node_is_named(kid);
        if (token && (text(kid) == "in" || text(kid) == ";")) {
          if (second && !run.empty()) chain(run, id, Role::Condition), run.clear();
          in |= text(kid) == "in";
          second = true;
        } else if (token && text(kid) == ",") {
          if (!run.empty()) chain(run, id, Role::None), run.clear();
        } else if (!token && !ts_node_eq(kid, declared) && (second || !isNull(declared))) {
          run.push_back(kid);
        }
      }
      if (in && !isNull(name)) {
        build_.setName(add(id, Kind::Variable, Role::None, name), text(name), begin(name));
        if (!run.empty()) chain(run, id, Role::Operand);
      } else if (!run.empty()) {
        chain(run, id, Role::None);
      }
    }
    if (TSNode inner = field(node, f_.body); !isNull(inner)) visit(inner, id, Role::Body);
    flushPending(id);
  }

  void tryStatement(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Try, role, node);
    TSNode caught{};
    bool first = true;
    for (TSNode kid : named(node)) {
      if (is(kid, "catch_clause")) caught = childOfType(kid, "catch_parameters");
      if (is(kid, "block")) {
        NodeId block = add(id, Kind::Block, first ? Role::Body : Role::Handler, kid);
        first = false;
        if (!isNull(caught))
          for (TSNode name : named(caught)) build_.setName(add(block, Kind::Variable, Role::None, name), text(name), begin(name));
        caught = {};
        statements(kid, block);
      }
      if (is(kid, "finally_clause"))
        if (TSNode inner = childOfType(kid, "block"); !isNull(inner)) visit(inner, id, Role::Finally);
    }
  }

  void lambda(TSNode list, TSNode inner, TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Lambda, role, node);
    if (!isNull(list)) parameterList(list, id);
    std::vector<Cascade> outer;
    outer.swap(pending_);
    if (!isNull(inner)) functionBody(inner, id);
    outer.swap(pending_);
  }

  void own(TSNode node, uint8_t tag, NodeId parent, Role role) override {
    switch (tag) {
      case kImport: import(node); break;
      case kClass: classNode(node, parent); break;
      case kExtension: lowerExtension(node, parent); break;
      case kEnum: lowerEnum(node, parent); break;
      case kAlias: lowerAlias(node, parent); break;
      case kRun: eachRun(node, parent, role); break;
      case kOperators: operators(node, parent, role); break;
      case kUnary: lowerUnary(node, parent, role); break;
      case kPostfix: lowerPostfix(node, parent, role); break;
      case kAwait: eachRun(node, add(parent, Kind::Await, role, node), Role::Operand); break;
      case kTernary: {
        std::vector<Nodes> parts = runs(node);
        NodeId id = add(parent, Kind::Conditional, role, node);
        Role roles[] = {Role::Condition, Role::Then, Role::Else};
        for (size_t i = 0; i < parts.size() && i < 3; ++i) chain(parts[i], id, roles[i]);
        break;
      }
      case kIfNull: lowerIfNull(node, parent, role); break;
      case kAssign: assign(node, parent, role); break;
      case kThrow: eachRun(node, add(parent, Kind::Throw, role, node), Role::Value); break;
      case kReturn: eachRun(node, add(parent, Kind::Return, role, node), Role::Value); break;
      case kStatementRun:
        // To the grammar `rethrow` is a name.
        if (text(node) == "rethrow;") {
          add(parent, Kind::Throw, role, node);
          break;
        }
        eachRun(node, add(parent, Kind::ExpressionStatement, role, node), Role::None); break;
      case kLocal: local(node, parent); break;
      case kLocalFunction: lowerLocalFunction(node, parent); break;
      case kFor: forLoop(node, parent, role); break;
      case kTry: tryStatement(node, parent, role); break;
      case kSwitchStatement: lowerSwitchStatement(node, parent, role); break;
      case kFunctionExpression: {
        TSNode list = field(node, f_.parameters), inner = field(node, f_.body);
        lambda(list, inner, node, parent, role);
        break;
      }
      case kCreate: create(node, parent, role); break;
      case kList: case kMap: lowerList(node, tag, parent, role); break;
      case kTest: lowerTest(node, parent, role); break;
      case kCast: lowerCast(node, parent, role); break;
      default: break;
    }
  }

  void lowerExtension(TSNode node, NodeId parent) {
    // Its members join the type that it extends.
    TSNode extended = field(node, g_.language ? ts_language_field_id_for_name(g_.language, "class", 5) : 0);
    std::string outer = extending_;
    extending_ = text(extended);
    if (TSNode inner = field(node, f_.body); !isNull(inner)) members(all(inner), parent);
    extending_ = outer;
  }

  void lowerEnum(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name);
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(TypeForm::Enum);
    build_[id].modifiers = visibility(text(name)) | kDefinition;
    build_.setName(id, text(name), begin(name));
  }

  void lowerAlias(TSNode node, NodeId parent) {
    Nodes words;
    for (TSNode kid : named(node))
      if (is(kid, "type_identifier")) words.push_back(kid);
    if (words.size() != 2) return;
    NodeId id = add(parent, Kind::Alias, Role::Member, node);
    build_.setName(id, text(words[0]), begin(words[0]));
    typeRef(words[1], id, Role::Type);
  }

  void lowerUnary(TSNode node, NodeId parent, Role role) {
    std::vector<Nodes> parts = runs(node);
    std::string_view op = trim(text(node)).substr(0, 2);
    if (parts.empty()) return;
    // The operator is a named node of its own: left out by runs().
    if (op == "++" || op == "--") chain(parts.back(), add(parent, Kind::Update, role, node), Role::Target);
    else if (!op.empty() && op[0] == '!') {
      NodeId id = add(parent, Kind::Logic, role, node);
      build_[id].detail = static_cast<uint8_t>(LogicForm::Not);
      chain(parts.back(), id, Role::Operand);
    } else if (parts.size() == 1 && parts[0].size() == 1 && is(parts[0][0], "await_expression")) {
      visit(parts[0][0], parent, role);
    } else {
      NodeId id = add(parent, Kind::Other, role, node);
      for (const Nodes& part : parts) chain(part, id, Role::Operand);
    }
  }

  void lowerPostfix(TSNode node, NodeId parent, Role role) {
    std::vector<Nodes> parts = runs(node);
    bool update = endsIn(text(node), "++") || endsIn(text(node), "--");
    if (parts.empty()) return;
    if (update) chain(parts.front(), add(parent, Kind::Update, role, node), Role::Target);
    else chain(parts.front(), parent, role);
  }

  void lowerIfNull(TSNode node, NodeId parent, Role role) {
    std::vector<Nodes> parts = runs(node);
    if (parts.size() < 2) return;
    NodeId id = add(parent, Kind::Conditional, role, node);
    NodeId test = add(id, Kind::NullTest, Role::Condition, node);
    build_[test].detail = static_cast<uint8_t>(NullTestForm::IsNotNull);
    chain(parts[0], test, Role::Operand);
    chain(parts[0], id, Role::Then);
    for (size_t i = 1; i < parts.size(); ++i) chain(parts[i], id, Role::Else);
  }

  void lowerLocalFunction(TSNode node, NodeId parent) {
    TSNode whole = childOfType(node, "lambda_expression");
    TSNode sign = isNull(whole) ? TSNode{} : childOfType(whole, "function_signature");
    TSNode name = isNull(sign) ? TSNode{} : field(sign, f_.name);
    if (isNull(name)) return;
    NodeId id = add(parent, Kind::Variable, Role::None, node);
    build_.setName(id, text(name), begin(name));
    build_[id].modifiers = kDefinition | kConst;
    lambda(childOfType(sign, "formal_parameter_list"), childOfType(whole, "function_body"), node, id, Role::Initialiser);
  }

  void lowerSwitchStatement(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Switch, role, node);
    if (TSNode test = field(node, f_.condition); !isNull(test)) visit(test, id, Role::Condition);
    TSNode inner = field(node, f_.body);
    if (isNull(inner)) return;
    for (TSNode kid : named(inner)) {
      if (is(kid, "switch_label")) continue;
      visit(kid, id, Role::None);
      flushPending(id);
    }
  }

  void lowerList(TSNode node, uint8_t tag, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Collection, role, node);
    bool keyed = tag == kMap && (!isNull(childOfType(node, "pair")) || runs(node).empty());
    build_.setName(id, tag == kList ? "List" : keyed ? "Map" : "Set", begin(node));
    if (TSNode types = childOfType(node, "type_arguments"); !isNull(types)) {
      if (tag == kMap && runs(node).empty()) build_.setName(id, text(types).find(',') == std::string_view::npos ? "Set" : "Map", begin(node));
    }
    eachRun(node, id, Role::Value);
  }

  void lowerTest(TSNode node, NodeId parent, Role role) {
    std::vector<Nodes> parts = runs(node);
    NodeId id = add(parent, Kind::Other, role, node);
    for (Nodes part : parts) {
      part.erase(std::remove_if(part.begin(), part.end(), [&](TSNode kid) { return is(kid, "type_test"); }), part.end());
      chain(part, id, Role::Operand);
    }
  }

  void lowerCast(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Cast, role, node);
    TSNode cast = childOfType(node, "type_cast");
    if (TSNode type = isNull(cast) ? TSNode{} : childOfType(cast, "type_identifier"); !isNull(type)) typeRef(type, id, Role::Type);
    for (Nodes part : runs(node)) {
      part.erase(std::remove_if(part.begin(), part.end(), [&](TSNode kid) { return is(kid, "type_cast"); }), part.end());
      chain(part, id, Role::Operand);
    }
  }

  NodeId home_ = 0;
  std::string extending_;
  std::vector<Cascade> pending_;  // of the statement at hand
};

void lowerDart(std::string_view text, LoweredFile& out) {
  std::string end = missingEnd(text);
  if (end.empty()) return DartLowerer(grammar(), text, out).run();
  std::string whole = std::string(text) + end;
  DartLowerer(grammar(), whole, out).run();
  endAt(out);
}

}  // namespace

Language dartLanguage() {
  static constexpr std::string_view kExtensions[] = {".dart"};
  static constexpr std::string_view kInterpreters[] = {"dart"};
  Language language;
  language.id = "dart";
  language.name = "Dart";
  language.extensions = kExtensions;
  language.testImports = {"lib::test", "lib::flutter_test"};
  language.interpreters = kInterpreters;
  language.separator = ".";
  language.dotted = true;
  language.infersTypes = true;
  language.createsByCall = true;
  language.modulesByFolder = true;
  language.marksConstants = true;
  language.guarantees = &dartGuarantees();
  language.mending = &dartMending();
  language.facing = &dartFacing();
  language.settling = &dartSettling();
  language.announcing = &dartAnnouncing();
  language.handing = &dartHanding();
  language.lower = [](std::string_view text, const Language::TreeLore*, LoweredFile& out) { lowerDart(text, out); };
  language.grammar = tree_sitter_dart;
  language.writer = dartWriter;
  language.parseOnly = [](std::string_view text) { parseOnlyWith(grammar(), std::string(text) + missingEnd(text)); };
  return language;
}

}  // namespace elmcart
