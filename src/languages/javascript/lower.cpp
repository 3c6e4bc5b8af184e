// Lowers JavaScript and TypeScript files. Clauses are of ECMA-262, 14th edition.
#include <map>

#include "base/text.h"
#include "languages/javascript/javascript.h"
#include "languages/javascript/parking.h"
#include "languages/javascript/shapes.h"
#include "languages/javascript/wrapper.h"

namespace elmcart {
namespace script {
namespace {

class ScriptLowerer : public ParkingScript {
 public:
  ScriptLowerer(const SharedGrammar& grammar, std::string_view text, const ScriptLore* lore, LoweredFile& file) : ParkingScript(grammar, text, lore, file) {}

 private:
  void unit(TSNode root) override {
    openModule(root, "index");
    shared_ = !isModule(root);
    outline(root);
    for (TSNode child : named(root)) topLevel(child, root, module_);
  }

  bool declares(TSNode node) const {
    if (g_.shapeOf(node) != Shape::Own) return false;
    switch (g_.ownOf(node)) {
      case kImport: case kExport: case kClass: case kFunction: case kInterface: case kAlias: case kEnum: case kNamespace: case kDeclare: return true;
      default: return false;
    }
  }

  // A statement of a module, of a namespace, or of a function that stands for one.
  void topLevel(TSNode node, TSNode root, NodeId home) {
    if (g_.shapeOf(node) == Shape::Comment || declares(node)) return visit(node, home, Role::None);
    if (g_.shapeOf(node) == Shape::Own && g_.ownOf(node) == kLexical) return lexical(node, home, true, false);
    if (is(node, "expression_statement") && (exportsByAssignment(firstNamed(node), home) || ofPrototype(firstNamed(node)) || givenToGrown(firstNamed(node), home))) return;
    // TypeScript's `namespace X { … }` stands as an expression.
    if (is(node, "expression_statement") && is(firstNamed(node), "internal_module")) return visit(firstNamed(node), home, Role::None);
    if (is(node, "expression_statement") && calledInPlace(firstNamed(node), home)) return;
    visit(node, bodyOf(root, home), Role::None);
  }

  // The block that the statements of a module, or of a namespace inside it, go to.
  NodeId bodyOf(TSNode root, NodeId home) {
    if (home == module_) return moduleBody(root);
    NodeId& block = bodies_[home];
    if (block == kNoNode) {
      NodeId body = function(root, home, FunctionForm::Initialiser, "module body", begin(root), kStatic | kDefinition | kPrivate);
      block = add(body, Kind::Block, Role::Body, root);
    }
    return block;
  }

  // (function () { … })(), !function () { … }(), define([…], function () { … }) and the like: what
  // the function declares is a module of its own.
  bool calledInPlace(TSNode node, NodeId home) {
    while (is(node, "parenthesized_expression") || is(node, "unary_expression") || is(node, "await_expression")) node = is(node, "unary_expression") ? field(node, f_.argument) : firstNamed(node);
    if (!is(node, "call_expression") || functionDepth_ > 0) return false;
    TSNode called = field(node, f_.function);
    while (is(called, "parenthesized_expression")) called = firstNamed(called);
    // (function () { … }).call(this)
    if (is(called, "member_expression") && (text(field(called, f_.property)) == "call" || text(field(called, f_.property)) == "apply")) {
      TSNode inner = field(called, f_.object);
      while (is(inner, "parenthesized_expression")) inner = firstNamed(inner);
      if (isFunction(inner)) called = inner;
    }
    // The function that a wrapper is given, or that a loader is told to run, holds the module.
    TSNode given{};
    for (TSNode argument : named(field(node, f_.arguments)))
      if (isFunction(argument)) given = argument;
    bool loader = is(called, "identifier") && text(called) == "define";
    if (!isNull(given) && (loader || isFunction(called))) {
      if (!loader) visit(called, bodyOf(node, home), Role::None);
      moduleOf(node, called, given, home, true);
      return true;
    }
    if (!isFunction(called)) return false;
    moduleOf(node, called, called, home, false);
    for (TSNode argument : named(field(node, f_.arguments))) visit(argument, bodyOf(node, home), Role::None);
    return true;
  }
  bool isFunction(TSNode node) const { return (is(node, "arrow_function") || is(node, "function_expression") || is(node, "function")) && is(field(node, f_.body), "statement_block"); }

  void moduleOf(TSNode call, TSNode called, TSNode fn, NodeId home, bool exports) {
    NodeId space = add(home, Kind::Namespace, Role::Member, fn);
    build_.setName(space, "(function " + std::to_string(++inPlace_) + ")", begin(fn));
    size_t around = handedOut_.size();
    for (const std::string& name : home == module_ ? exportParameters(call, called, fn, text_) : std::set<std::string>{}) {
      std::set<std::string> members = membersGiven(fn, name, text_);
      for (const std::string& member : members) makeVisible(fn, module_, member, ownPath(file_.name(space)) + "::" + member);
      handedOut_.push_back({name, ownPath(file_.name(space)) + "::", std::move(members), space});
    }
    for (TSNode child : named(field(fn, f_.body))) {
      TSNode value = is(child, "return_statement") ? firstNamed(child) : TSNode{};
      if (exports && is(value, "identifier") && home == module_) makeVisible(child, module_, "default", ownPath(file_.name(space)) + "::" + std::string(text(value)));
      topLevel(child, fn, space);
    }
    handedOut_.erase(handedOut_.begin() + static_cast<std::ptrdiff_t>(around), handedOut_.end());
  }

  // A parameter that stands for the object which the file hands out, and the members that it is given.
  struct HandedOut {
    std::string name, path;
    std::set<std::string> members;
    NodeId space;
  };
  const HandedOut* handedOutBy(TSNode member) const {
    if (handedOut_.empty() || !is(member, "member_expression")) return nullptr;
    std::string_view object = text(field(member, f_.object));
    for (const HandedOut& one : handedOut_)
      if (one.name == object && one.members.count(std::string(text(field(member, f_.property))))) return &one;
    return nullptr;
  }

  // Is this assignment the one that declares the member, at the top of the function that is given the object?
  const HandedOut* declaresMemberOf(TSNode assignment, NodeId home) {
    TSNode left = field(assignment, f_.left);
    const HandedOut* to = handedOutBy(left);
    bool first = to && to->space == home && declaredByValue_.insert(to->path + std::string(text(field(left, f_.property)))).second;
    return first ? to : nullptr;
  }

  // space.name = value, at the top of a function that stands for a module.
  bool givenToHandedOut(TSNode node, NodeId home) {
    const HandedOut* to = declaresMemberOf(node, home);
    if (!to) return false;
    TSNode left = field(node, f_.left), value = lastAssigned(node);
    std::string_view name = text(field(left, f_.property));
    if (!is(value, "identifier")) {
      declareNamed(name, field(left, f_.property), value, home, kPublic, {}, 1);
    } else if (text(value) != name) {
      makeVisible(node, home, name, to->path + std::string(text(value)));
    }
    return true;
  }

  bool ownMember(TSNode node, NodeId parent, Role role) override {
    if (const HandedOut* of = handedOutBy(node)) {
      TSNode property = field(node, f_.property);
      build_.setName(add(parent, Kind::Name, role, node), of->path + std::string(text(property)), begin(property));
      return true;
    }
    // What the module exports, named through its exports.
    std::string_view object = text(field(node, f_.object));
    if ((object == "exports" || object == "module.exports") && is(node, "member_expression")) {
      TSNode property = field(node, f_.property);
      build_.setName(add(parent, Kind::Name, role, node), ownPath(text(property)), begin(property));
      return true;
    }
    std::string name = parked(node);
    if (name.empty()) return false;
    parkedName(node, name, parent, role);
    return true;
  }

  // A file that tells of code elsewhere: its variables are kept there.
  bool declarationsOnly() const {
    std::string_view path = file_.path;
    for (std::string_view end : {".d.ts", ".d.mts", ".d.cts"})
      if (path.size() > end.size() && path.substr(path.size() - end.size()) == end) return true;
    return false;
  }

  // ----- classes that are written as functions (20.2.4.3): Widget.prototype.draw = function () { … };

  // Is it a function that an object is made with, and that gives it what it holds?
  bool isConstructing(std::string_view name, TSNode fn) {
    if (functionDepth_ > 0 || !newed_.count(std::string(name)) || classNames_.count(std::string(name))) return false;
    std::map<std::string, Span> fields;
    fieldsOf(field(fn, f_.body), false, std::string(name), fields, 0);
    return !fields.empty();
  }
  bool isPrototypeClass(std::string_view name) const { return functionDepth_ == 0 && prototypes_.count(std::string(name)) > 0 && !classNames_.count(std::string(name)); }

  void prototypeClass(TSNode fn, NodeId home, std::string_view name, uint32_t nameBegin) {
    const Prototype& prototype = prototypes_[std::string(name)];
    NodeId id = add(home, Kind::Type, Role::Member, fn);
    build_[id].modifiers = kDefinition | kPublic;
    build_.setName(id, name, nameBegin);
    if (!prototype.base.empty())
      if (NodeId ref = typeRefNamed(scoped(prototype.base), fn, id, Role::Base, false); ref != kNoNode) build_[ref].modifiers = kPublic;
    std::string outer = currentClass_;
    currentClass_ = name;
    std::map<std::string, Span> fields;
    std::set<std::string> declared;
    auto member = [&](FunctionForm form, std::string_view word, TSNode value) {
      NodeId method = function(value, id, form, word, begin(value), kDefinition | kPublic);
      functionParts(value, method);
      fieldsOf(field(value, f_.body), false, std::string(name), fields, 0);
    };
    member(FunctionForm::Constructor, "constructor", fn);
    for (const auto& [word, value] : prototype.members) {
      if (word == "constructor" || !declared.insert(word).second) continue;
      if (isFunction(value) || is(value, "method_definition")) member(FunctionForm::Function, word, value);
      else build_.setName(variable(value, id, Role::Member, value, kStatic | kPublic, {}, value), word, begin(value));
    }
    for (const auto& [field, place] : statics_[std::string(name)])
      if (field != "prototype") synthesise(id, field, place, kStatic | kDefinition, declared);
    for (const auto& [field, place] : fields) synthesise(id, field, place, 0, declared);
    currentClass_ = outer;
  }

  // space.name = value, where `space` began without a member.
  bool givenToGrown(TSNode node, NodeId home) {
    TSNode left = is(node, "assignment_expression") ? field(node, f_.left) : TSNode{};
    if (!is(left, "member_expression") || !is(field(left, f_.object), "identifier")) return false;
    std::string object(text(field(left, f_.object))), name(text(field(left, f_.property)));
    auto at = grownAt_.find({home, object});
    if (at == grownAt_.end() || !declaredByValue_.insert(std::to_string(at->second) + "." + name).second) return false;
    bool outer = std::exchange(inObject_, true);
    std::string outerClass = std::exchange(currentClass_, object);
    declareNamed(name, field(left, f_.property), field(node, f_.right), at->second, kStatic | kPublic, {}, 1);
    inObject_ = outer;
    currentClass_ = outerClass;
    return true;
  }

  // Is it a statement that a class so written has taken in?
  bool ofPrototype(TSNode node) const {
    TSNode left = is(node, "assignment_expression") ? field(node, f_.left) : TSNode{};
    if (!is(left, "member_expression")) return false;
    TSNode object = field(left, f_.object);
    if (is(object, "identifier")) return text(field(left, f_.property)) == "prototype" && isPrototypeClass(text(object));
    return is(object, "member_expression") && text(field(object, f_.property)) == "prototype" && isPrototypeClass(text(field(object, f_.object)));
  }

  // ----- modules (clause 16.2)

  std::string modulePath(std::string_view quoted) {
    std::string_view written = quoted.size() >= 2 ? quoted.substr(1, quoted.size() - 2) : quoted;
    if (written.empty() || written[0] != '.') return "(package)::" + std::string(written);
    std::vector<std::string> parts = pathFromHere(written);
    if (!parts.empty())
      for (std::string_view extension : {".js", ".mjs", ".cjs", ".jsx", ".ts", ".tsx", ".mts", ".cts"})
        if (parts.back().size() > extension.size() && parts.back().substr(parts.back().size() - extension.size()) == extension) {
          parts.back().resize(parts.back().size() - extension.size());
          parts.back() += keptEnding(extension);
          break;
        }
    if (parts.size() > 1 && parts.back() == "index") parts.pop_back();
    return joinWith(parts, "::");
  }

  void makeVisible(TSNode node, NodeId home, std::string_view local, const std::string& target) {
    NodeId id = add(home, Kind::Using, Role::None, node);
    build_.setName(id, local, begin(node));
    NodeId ref = add(id, Kind::TypeRef, Role::Type, node);
    build_.setName(ref, target, begin(node));
  }

  void import(TSNode node) {
    std::string path = modulePath(text(field(node, f_.source)));
    NodeId import = add(module_, Kind::Import, Role::None, node);
    build_.setName(import, path, begin(node));
    TSNode clause = childOfType(node, "import_clause");
    if (isNull(clause)) return;
    for (TSNode part : named(clause)) {
      if (is(part, "identifier")) makeVisible(part, module_, text(part), path + "::default");
      if (is(part, "namespace_import")) makeVisible(part, module_, text(firstNamed(part)), path);
      if (is(part, "named_imports"))
        for (TSNode item : named(part)) {
          TSNode name = field(item, f_.name), alias = field(item, f_.alias);
          makeVisible(item, module_, text(isNull(alias) ? name : alias), path + "::" + std::string(text(name)));
        }
    }
  }

  // The path that require("…") names, or empty.
  std::string required(TSNode value) {
    // imports.ui.main: some hosts of the language bring modules in so.
    if (is(value, "member_expression")) {
      TSNode root = value;
      while (is(root, "member_expression")) root = field(root, f_.object);
      return is(root, "identifier") && text(root) == "imports" ? "(package)::" + std::string(text(value)) : "";
    }
    if (!is(value, "call_expression") || text(field(value, f_.function)) != "require") return "";
    TSNode list = field(value, f_.arguments);
    TSNode first = isNull(list) ? TSNode{} : firstNamed(list);
    return is(first, "string") ? modulePath(text(first)) : "";
  }

  std::string ownPath(std::string_view name) const { return moduleName("index") + "::" + std::string(name); }

  // Who imports what is exported uses it.
  void useInBody(TSNode name) { build_.setName(add(moduleBody(name), Kind::Name, Role::None, name), text(name), begin(name)); }

  void exported(TSNode node, NodeId home) {
    TSNode source = field(node, f_.source);
    TSNode declaration = field(node, f_.declaration);
    bool isDefault = hasToken(node, "default");
    if (!isNull(declaration)) {
      if (g_.shapeOf(declaration) == Shape::Own && g_.ownOf(declaration) == kLexical) lexical(declaration, home, true, true);
      else visit(declaration, home, Role::None);
      TSNode name = field(declaration, f_.name);
      if (isDefault && !isNull(name)) makeVisible(node, home, "default", ownPath(text(name)));
      return;
    }
    TSNode clause = childOfType(node, "export_clause");
    if (!isNull(clause)) {
      std::string from = isNull(source) ? std::string() : modulePath(text(source));
      for (TSNode item : named(clause)) {
        TSNode name = field(item, f_.name), alias = field(item, f_.alias);
        if (!from.empty()) makeVisible(item, home, text(isNull(alias) ? name : alias), from + "::" + std::string(text(name)));
        else if (!isNull(alias)) makeVisible(item, home, text(alias), ownPath(text(name)));
        if (from.empty() && is(name, "identifier")) useInBody(name);
      }
      return;
    }
    if (!isNull(source)) {
      TSNode whole = childOfType(node, "namespace_export");
      if (!isNull(whole)) return makeVisible(node, home, text(firstNamed(whole)), modulePath(text(source)));
      NodeId id = add(home, Kind::Using, Role::None, node);
      build_.setName(id, modulePath(text(source)), begin(node));
      build_[id].modifiers |= kWholeScope | kPublic;
      return;
    }
    TSNode value = field(node, f_.value);
    if (isNull(value)) return;
    defaultValue(node, value, home);
  }

  void defaultValue(TSNode node, TSNode value, NodeId home) {
    if (is(value, "identifier")) {
      makeVisible(node, home, "default", ownPath(text(value)));
      useInBody(value);
      return;
    }
    // module.exports = class Watch { … }
    TSNode own = is(value, "class") ? field(value, f_.name) : TSNode{};
    if (isNull(own) || home != module_) return declareNamed("default", node, value, home, kConst | kPublic);
    makeVisible(node, home, "default", ownPath(text(own)));
    declareNamed(text(own), own, value, home, kConst | kPublic);
  }

  // module.exports = …, exports.name = …
  bool exportsByAssignment(TSNode node, NodeId home) {
    if (!is(node, "assignment_expression")) return false;
    TSNode left = field(node, f_.left), right = field(node, f_.right);
    std::string_view target = text(left);
    // exports.name = void 0, before it gets its value.
    TSNode last = lastAssigned(right);
    if (target.substr(0, 8) == "exports." && (text(last) == "void 0" || isNothing(last))) return true;
    if (target == "module.exports") {
      if (is(right, "object")) {
        for (TSNode part : named(right)) {
          if (is(part, "pair")) {
            TSNode key = field(part, f_.key), value = field(part, f_.value);
            if (is(value, "identifier")) {
              if (text(key) != text(value)) makeVisible(part, home, text(key), ownPath(text(value)));
              useInBody(value);
            } else {
              declareNamed(text(key), key, value, home, kConst | kPublic);
            }
          } else if (is(part, "method_definition")) {
            visit(part, home, Role::None);
          } else if (is(part, "shorthand_property_identifier")) {
            useInBody(part);
          }
        }
      } else {
        defaultValue(node, right, home);
      }
      return true;
    }
    for (std::string_view prefix : {"exports.", "module.exports."}) {
      if (target.substr(0, prefix.size()) != prefix || !is(left, "member_expression")) continue;
      std::string_view name = text(field(left, f_.property));
      if (target.size() != prefix.size() + name.size()) continue;
      if (std::string path = required(right); !path.empty()) {
        build_.setName(add(module_, Kind::Import, Role::None, node), path, begin(node));
        makeVisible(node, home, name, path + "::default");
      } else if (is(right, "identifier")) {
        if (name != text(right)) makeVisible(node, home, name, ownPath(text(right)));
      } else {
        declareNamed(name, node, right, home, kPublic, {}, 1);
      }
      return true;
    }
    return givenToHandedOut(node, home);
  }

  // ----- declarations

  // A name with a value: a function, a class, a module of its own, or a variable.
  // `declaring`: how many assignments of the name there are that declare it.
  void declareNamed(std::string_view name, TSNode at, TSNode value, NodeId home, uint32_t bits, TSNode type = {}, int declaring = 0) {
    TSNode inner = value;
    while (is(inner, "parenthesized_expression")) inner = firstNamed(inner);
    TSNode made = lastAssigned(inner);  // Book = exports.Book = function () { … }
    if (isFunction(made) && (isPrototypeClass(name) || isConstructing(name, made))) return prototypeClass(made, home, name, begin(at));
    auto assigned = assigned_.find(std::string(name));
    bool replaced = !(bits & kConst) && assigned != assigned_.end() && assigned->second > declaring;  // a variable that begins with a function
    if (!replaced && (is(inner, "arrow_function") || is(inner, "function_expression") || is(inner, "generator_function"))) {
      NodeId id = function(inner, home, FunctionForm::Function, name, begin(at), kDefinition | (bits & ~uint32_t{kConst}) | (inObject_ ? kStatic : 0u));
      functionParts(inner, id);
      return;
    }
    if (is(inner, "class")) return classNode(inner, home, name, begin(at));
    // (function () { …; return {…}; })(): a module inside the module.
    TSNode called = is(inner, "call_expression") ? field(inner, f_.function) : TSNode{};
    while (is(called, "parenthesized_expression")) called = firstNamed(called);
    if ((is(called, "arrow_function") || is(called, "function_expression")) && is(field(called, f_.body), "statement_block") && functionDepth_ == 0) {
      if (revealing(called)) {
        NodeId space = add(home, Kind::Namespace, Role::Member, value);
        build_.setName(space, name, begin(at));
        for (TSNode child : named(field(called, f_.body))) {
          if (is(child, "return_statement")) returned(firstNamed(child), space);
          else topLevel(child, called, space);
        }
        return;
      }
    }
    bool grows = is(inner, "object") && functionDepth_ == 0 && named(inner).empty() && grown_.count(std::string(name)) && !inObject_;
    bool table = indexed_.count(std::string(name)) > 0;  // entries come and go
    if (is(inner, "object") && (grows || hasFunctions(inner)) && !table) return objectType(name, at, inner, home, bits, grows);
    if (declarationsOnly()) return;
    NodeId id = add(home, Kind::Variable, Role::Member, at);
    build_.setName(id, name, begin(at));
    build_[id].modifiers = bits | kDefinition;
    build_[id].span.end = std::max(build_[id].span.end, isNull(value) ? 0u : ts_node_end_byte(value));
    typeRef(type, id, Role::Type);
    if (!isNull(value)) visit(value, id, Role::Initialiser);
  }

  // Does a variable of the function hold a number, text or truth at first?
  bool isPlainLocal(TSNode fn, std::string_view name) {
    for (TSNode statement : named(field(fn, f_.body)))
      for (TSNode one : named(statement))
        if (is(one, "variable_declarator") && text(field(one, f_.name)) == name)
          for (std::string_view plain : {"false", "true", "number", "string"})
            if (is(field(one, f_.value), plain)) return true;
    return false;
  }

  // Does the function return an object or function of its making?
  bool revealing(TSNode fn) {
    for (TSNode child : named(field(fn, f_.body)))
      if (is(child, "return_statement")) {
        TSNode value = firstNamed(child);
        if (is(value, "identifier")) return !isPlainLocal(fn, text(value));
        if (is(value, "object") || is(value, "arrow_function") || is(value, "function_expression")) return true;
      }
    return false;
  }

  void returned(TSNode value, NodeId space) {
    if (!is(value, "object")) {
      if (!isNull(value)) declareNamed("default", value, value, space, kConst | kPublic);
      return;
    }
    for (TSNode part : named(value)) {
      if (is(part, "method_definition")) visit(part, space, Role::None);
      if (is(part, "pair")) {
        TSNode key = field(part, f_.key), held = field(part, f_.value);
        if (!is(held, "identifier")) declareNamed(text(key), key, held, space, kConst | kPublic);
        else if (text(key) != text(held)) aliasInside(part, space, text(key), held);
      }
    }
  }
  void aliasInside(TSNode node, NodeId space, std::string_view name, TSNode held) {
    NodeId id = function(node, space, FunctionForm::Function, name, begin(node), kDefinition | kPublic);
    NodeId block = add(id, Kind::Block, Role::Body, node);
    NodeId result = add(block, Kind::Return, Role::None, node);
    NodeId call = add(result, Kind::Call, Role::Value, held);
    visit(held, call, Role::Callee);
  }

  bool hasFunctions(TSNode object) {
    for (TSNode part : named(object)) {
      if (is(part, "method_definition")) return true;
      if (is(part, "pair") && (is(field(part, f_.value), "arrow_function") || is(field(part, f_.value), "function_expression"))) return true;
    }
    return false;
  }

  // const X = { …, method() {} }: an object of a kind of its own.
  void objectType(std::string_view name, TSNode at, TSNode object, NodeId home, uint32_t bits, bool grows) {
    NodeId id = add(home, Kind::Type, Role::Member, object);
    if (grows) {  // space = {}; space.open = function () { … }
      grownAt_[{home, std::string(name)}] = id;
      std::set<std::string> declared = toplevelMembers_[std::string(name)];
      for (const auto& [field, place] : statics_[std::string(name)]) synthesise(id, field, place, kStatic | kDefinition, declared);
    }
    build_[id].detail = static_cast<uint8_t>(TypeForm::Object);
    build_[id].modifiers = kDefinition | (bits & ~uint32_t{kConst});
    build_.setName(id, name, begin(at));
    bool outerObject = inObject_;
    std::string outerClass = currentClass_;
    inObject_ = true;
    currentClass_ = name;
    ++classDepth_;
    for (TSNode part : named(object)) {
      if (is(part, "pair")) declareNamed(text(field(part, f_.key)), field(part, f_.key), field(part, f_.value), id, kStatic | kPublic);
      else if (is(part, "method_definition")) visit(part, id, Role::None);
      else if (is(part, "shorthand_property_identifier")) continue;
    }
    --classDepth_;
    inObject_ = outerObject;
    currentClass_ = outerClass;
  }

  // let/const/var: `home` is where its names are declared.
  void lexical(TSNode node, NodeId home, bool top, bool isExported) {
    if (declarationsOnly()) return;
    bool constant = hasToken(node, "const");
    for (TSNode child : named(node)) {
      if (!is(child, "variable_declarator")) continue;
      TSNode name = field(child, f_.name), value = field(child, f_.value);
      if (std::string path = required(value); !path.empty()) {
        NodeId import = add(module_, Kind::Import, Role::None, child);
        build_.setName(import, path, begin(child));
        if (is(name, "identifier")) makeVisible(child, home, text(name), path + "::default");
        else if (is(name, "object_pattern"))
          for (TSNode part : named(name)) {
            if (is(part, "shorthand_property_identifier_pattern")) makeVisible(part, home, text(part), path + "::" + std::string(text(part)));
            if (is(part, "pair_pattern")) makeVisible(part, home, text(field(part, f_.value)), path + "::" + std::string(text(field(part, f_.key))));
          }
        continue;
      }
      uint32_t bits = (constant ? kConst : 0u) | (top && !isExported ? 0u : uint32_t{kPublic});
      if (is(name, "identifier")) {
        // var Book = space.Book = value
        if (const HandedOut* to = top && is(value, "assignment_expression") ? declaresMemberOf(value, home) : nullptr) {
          std::string_view other = text(field(field(value, f_.left), f_.property));
          if (other != text(name)) makeVisible(child, home, other, to->path + std::string(text(name)));
          declareNamed(text(name), name, lastAssigned(value), home, bits, field(child, f_.type), 1);
          continue;
        }
        if (top) declareNamed(text(name), name, value, home, bits, field(child, f_.type));
        else variable(child, home, Role::None, name, bits, field(child, f_.type), value);
        continue;
      }
      // Taken apart: each name by itself, the value once.
      NodeId other = add(top ? moduleBody(child) : home, Kind::Other, Role::None, child);
      if (!isNull(value)) visit(value, other, Role::Operand);
      patternDefaults(name, other);
      bool direct = !top && is(name, "object_pattern") && (is(value, "this") || is(value, "identifier"));
      patternTargets(name, [&](TSNode inner) {
        bool member = is(inner, "shorthand_property_identifier_pattern");
        if (!is(inner, "identifier") && !member) return;
        NodeId id = variable(inner, home, Role::None, inner, bits, {}, {});
        // const { actions } = this;
        if (!direct || !member || !ts_node_eq(ts_node_parent(inner), name)) return;
        NodeId of = add(id, Kind::Member, Role::Initialiser, inner);
        build_.setName(of, text(inner), begin(inner));
        visit(value, of, Role::Receiver);
      });
    }
  }

  void classNode(TSNode node, NodeId home, std::string_view name, uint32_t nameBegin) {
    NodeId id = add(home, Kind::Type, Role::Member, node);
    build_[id].modifiers = kDefinition | kPublic | (is(node, "abstract_class_declaration") ? kAbstract : 0u);
    build_.setName(id, name, nameBegin);
    annotate(node, id);
    TSNode heritage = childOfType(node, "class_heritage");
    if (!isNull(heritage)) {
      TSNode extends = childOfType(heritage, "extends_clause");
      TSNode base = isNull(extends) ? firstNamed(heritage) : field(extends, f_.value);
      if (!isNull(base) && !is(base, "implements_clause"))
        if (NodeId ref = typeRef(base, id, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
      TSNode implements = childOfType(heritage, "implements_clause");
      if (!isNull(implements))
        for (TSNode one : named(implements))
          if (NodeId ref = typeRef(one, id, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
    }
    std::string outer = currentClass_;
    bool outerObject = inObject_;
    inObject_ = false;
    currentClass_ = name;
    ++classDepth_;
    TSNode inner = field(node, f_.body);
    std::set<std::string> declared;
    for (TSNode child : named(inner))
      if (is(child, "field_definition") || is(child, "public_field_definition")) declared.insert(std::string(text(firstField(child, f_.property, f_.name))));
    for (TSNode child : named(inner)) visit(child, id, Role::None);
    std::map<std::string, Span> fields;
    for (TSNode child : named(inner))
      if (is(child, "method_definition")) fieldsOf(field(child, f_.body), hasToken(child, "static"), std::string(name), fields, 0);
    for (const auto& [field, place] : statics_[std::string(name)]) synthesise(id, field, place, kStatic | kDefinition, declared);
    for (const auto& [field, place] : fields) synthesise(id, field, place, 0, declared);
    --classDepth_;
    currentClass_ = outer;
    inObject_ = outerObject;
  }
  void synthesise(NodeId type, const std::string& name, Span place, uint32_t bits, std::set<std::string>& declared) {
    if (name.empty() || !declared.insert(name).second) return;
    NodeId id = build_.add(type, Kind::Variable, Role::Member, place);
    build_.setName(id, name, place.begin);
    build_[id].modifiers = bits | (name[0] == '#' || name[0] == '_' ? kPrivate : kPublic);
  }
  uint32_t memberBits(TSNode node, std::string_view name) {
    uint32_t bits = name.size() > 0 && name[0] == '#' ? kPrivate : 0u;
    std::string_view access = text(childOfType(node, "accessibility_modifier"));
    if (access == "private") bits |= kPrivate;
    if (access == "protected") bits |= kProtected;
    if (!(bits & (kPrivate | kProtected))) bits |= kPublic;
    if (hasToken(node, "static") || inObject_) bits |= kStatic;
    if (hasToken(node, "readonly")) bits |= kConst;
    if (hasToken(node, "abstract") || is(node, "abstract_method_signature")) bits |= kAbstract;
    return bits;
  }

  void functionParts(TSNode node, NodeId id) {
    int outerClass = classDepth_;
    classDepth_ = 0;
    ++functionDepth_;
    typeRef(field(node, f_.returnType), id, Role::Type);
    TSNode list = field(node, f_.parameters), single = field(node, f_.parameter);
    if (!isNull(single)) parameter(single, id);
    parameters(list, id);
    body(field(node, f_.body), id);
    --functionDepth_;
    classDepth_ = outerClass;
  }

  void parameter(TSNode node, NodeId fn) override {
    if (is(node, "this_type") || is(node, "decorator")) return;
    NodeId id = add(fn, Kind::Parameter, Role::Parameter, node);
    TSNode name = firstField(node, f_.pattern, f_.left, f_.name);
    if (isNull(name)) name = node;
    if (is(name, "rest_pattern")) {
      build_[id].modifiers |= kPack;
      name = firstNamed(name);
    }
    bool parts = is(name, "object_pattern") || is(name, "array_pattern");
    build_.setName(id, isNull(name) || parts ? std::string_view{} : text(name), begin(node));
    if (parts)
      patternTargets(name, [&](TSNode inner) {
        if (is(inner, "identifier") || is(inner, "shorthand_property_identifier_pattern")) variable(inner, fn, Role::None, inner, 0, {}, {});
      });
    typeRef(field(node, f_.type), id, Role::Type);
    TSNode value = firstField(node, f_.value, f_.right);
    if (!isNull(value)) visit(value, id, Role::Initialiser);
    if (parts) patternDefaults(name, id);
    if (hasToken(node, "?") && isNull(value)) add(id, Kind::Literal, Role::Initialiser, node);
  }

  // In a static method `this` is the class.
  bool ownThis(TSNode node, NodeId parent, Role role) override {
    if (!inStatic_) return false;
    NodeId id = add(parent, Kind::Name, role, node);
    build_.setName(id, currentClass_, begin(node));
    return true;
  }

  // 13.15.5: ({ a, b: c = 1 } = value), [p, q] = [q, p]: each name is written.
  bool ownAssign(TSNode node, NodeId parent, Role role) override {
    TSNode left = field(node, f_.left), right = field(node, f_.right);
    if (!is(left, "object_pattern") && !is(left, "array_pattern")) return false;
    NodeId other = add(parent, Kind::Other, role, node);
    visit(right, other, Role::Operand);
    patternDefaults(left, other);
    patternTargets(left, [&](TSNode target) {
      NodeId id = add(other, Kind::Assign, Role::Operand, target);
      visit(target, id, Role::Target);
      add(id, Kind::Other, Role::Value, right);
    });
    return true;
  }

  // What a pattern gives a name where there is nothing for it: const { ships = count() } = harbour.
  void patternDefaults(TSNode pattern, NodeId parent, int depth = 0) {
    if (depth > 100) return;
    if (is(pattern, "object_assignment_pattern") || is(pattern, "assignment_pattern"))
      if (TSNode value = field(pattern, f_.right); !isNull(value)) visit(value, parent, Role::Operand);
    for (TSNode part : named(pattern))
      if (std::string_view(ts_node_type(part)).ends_with("pattern")) patternDefaults(part, parent, depth + 1);
  }

  // The names and members that a pattern gives values to.
  template <typename Each>
  void patternTargets(TSNode pattern, Each each, int depth = 0) {
    if (depth > 100) return;
    if (is(pattern, "pair_pattern")) return patternTargets(field(pattern, f_.value), each, depth + 1);
    if (is(pattern, "object_assignment_pattern") || is(pattern, "assignment_pattern")) return patternTargets(field(pattern, f_.left), each, depth + 1);
    if (is(pattern, "rest_pattern")) return patternTargets(firstNamed(pattern), each, depth + 1);
    if (!is(pattern, "object_pattern") && !is(pattern, "array_pattern")) return each(pattern);
    for (TSNode part : named(pattern)) patternTargets(part, each, depth + 1);
  }

  bool ownCall(TSNode node, NodeId parent, Role role) override {
    TSNode callee = field(node, f_.function);
    if (!is(callee, "super")) return false;
    NodeId id = add(parent, Kind::FieldInit, Role::FieldInit, node);
    (void)role;
    build_.setName(id, "super", begin(node));
    arguments(field(node, f_.arguments), id);
    return true;
  }

  void own(TSNode node, uint8_t tag, NodeId parent, Role role) override {
    switch (tag) {
      case kImport: import(node); break;
      case kExport: exported(node, functionDepth_ == 0 ? parent : module_); break;
      case kDeclare: for (TSNode child : named(node)) visit(child, parent, role); break;
      case kClass: {
        TSNode name = field(node, f_.name);
        classNode(node, parent, isNull(name) ? std::string_view("(class)") : text(name), isNull(name) ? begin(node) : begin(name));
        break;
      }
      case kFunction: lowerFunction(node, parent); break;
      case kMethod: lowerMethod(node, parent); break;
      case kField: lowerField(node, parent); break;
      case kStaticBlock: {
        NodeId id = function(node, parent, FunctionForm::Initialiser, "static block", begin(node), kStatic | kDefinition | kPrivate);
        body(field(node, f_.body), id);
        break;
      }
      case kLexical: lexical(node, parent, false, false); break;
      case kArrow: {
        NodeId id = add(parent, Kind::Lambda, role, node);
        functionParts(node, id);
        break;
      }
      case kNewExpression: lowerNewExpression(node, parent, role); break;
      case kObject: case kArray: lowerObject(node, tag, parent, role); break;
      case kElse: visitChildren(node, parent, role); break;
      case kCatch: {
        TSNode name = field(node, f_.parameter);
        handler(node, parent, role, is(name, "identifier") ? name : TSNode{}, {}, field(node, f_.body));
        break;
      }
      case kCase: {
        NodeId id = add(parent, Kind::Block, role, node);
        visitChildren(node, id);
        break;
      }
      case kInterface: lowerInterface(node, parent); break;
      case kAlias: {
        NodeId id = add(parent, Kind::Alias, Role::Member, node);
        build_.setName(id, text(field(node, f_.name)), begin(field(node, f_.name)));
        typeRef(field(node, f_.value), id, Role::Type);
        break;
      }
      case kEnum: {
        NodeId id = add(parent, Kind::Type, Role::Member, node);
        build_[id].detail = static_cast<uint8_t>(TypeForm::Enum);
        build_[id].modifiers = kDefinition | kPublic;
        build_.setName(id, text(field(node, f_.name)), begin(field(node, f_.name)));
        if (TSNode list = field(node, f_.body); !isNull(list))
          for (TSNode member : named(list))  // values that are worked out when the file is loaded
            if (TSNode value = field(member, f_.value); !isNull(value)) visit(value, functionDepth_ > 0 ? parent : moduleBody(node), Role::None);
        break;
      }
      case kNamespace: lowerNamespace(node, parent); break;
      case kSubscript: lowerSubscript(node, parent, role); break;
      case kAsserted: {
        TSNode first = firstNamed(node);
        NodeList kids = named(node);
        visit(is(node, "type_assertion") && kids.size() > 1 ? kids.back() : first, parent, role);
        break;
      }
      default: break;
    }
  }

  void lowerFunction(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name);
    if (functionDepth_ > 0) {  // a function inside a function closes over the names around it
      NodeId id = add(parent, Kind::Variable, Role::None, node);
      build_.setName(id, text(name), begin(name));
      build_[id].modifiers = kDefinition | kConst;
      NodeId lambda = add(id, Kind::Lambda, Role::Initialiser, node);
      functionParts(node, lambda);
      return;
    }
    if (isPrototypeClass(text(name)) || isConstructing(text(name), node)) return prototypeClass(node, parent, text(name), begin(name));
    NodeId id = function(node, parent, FunctionForm::Function, text(name), begin(name), kDefinition | kPublic);
    functionParts(node, id);
  }

  void lowerMethod(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name);
    std::string_view word = text(name);
    FunctionForm form = word == "constructor" && !inObject_ ? FunctionForm::Constructor : hasToken(node, "get") ? FunctionForm::Getter : hasToken(node, "set") ? FunctionForm::Setter : FunctionForm::Function;
    bool inClass = file_[parent].kind == Kind::Type;
    uint32_t bits = inClass ? memberBits(node, word) : uint32_t{kPublic};
    NodeId id = function(node, parent, form, word, begin(name), bits | (isNull(field(node, f_.body)) ? 0u : uint32_t{kDefinition}));
    if (form == FunctionForm::Constructor) {
      // A parameter with an access word is a field too.
      TSNode list = field(node, f_.parameters);
      if (!isNull(list))
        for (TSNode one : named(list))
          if (!isNull(childOfType(one, "accessibility_modifier")) || hasToken(one, "readonly")) variable(one, parent, Role::Member, field(one, f_.pattern), memberBits(one, text(field(one, f_.pattern))) & ~uint32_t{kStatic}, field(one, f_.type), {});
    }
    bool outer = inStatic_;
    inStatic_ = (bits & kStatic) && !inObject_;
    functionParts(node, id);
    inStatic_ = outer;
  }

  void lowerField(TSNode node, NodeId parent) {
    TSNode name = firstField(node, f_.property, f_.name);
    TSNode value = field(node, f_.value);
    if (declarationsOnly() && hasToken(node, "static")) return;
    uint32_t bits = memberBits(node, text(name));
    if (is(value, "arrow_function") && !(bits & kStatic)) {
      NodeId id = function(node, parent, FunctionForm::Function, text(name), begin(name), bits | kDefinition);
      functionParts(value, id);
      return;
    }
    variable(node, parent, Role::Member, name, bits, field(node, f_.type), value);
  }

  void lowerNewExpression(TSNode node, NodeId parent, Role role) {
    TSNode made = field(node, f_.constructor);
    NodeId id = add(parent, Kind::Create, role, node);
    build_[id].detail = static_cast<uint8_t>(CreateForm::Heap);
    if (is(made, "this")) build_[id].modifiers |= kVirtual;
    constexpr std::string_view kExports = "exports.";
    if (text(made).starts_with(kExports)) typeRefNamed(ownPath(text(made).substr(kExports.size())), made, id, Role::Type, false);
    else if (is(made, "this") || text(made) == "this.constructor") typeRefNamed(currentClass_, made, id, Role::Type, false);
    else if (NodeId ref = typeRef(made, id, Role::Type); ref != kNoNode) build_[ref].modifiers &= ~kManaged;
    arguments(field(node, f_.arguments), id);
  }

  void lowerObject(TSNode node, uint8_t tag, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Collection, role, node);
    build_.setName(id, tag == kObject ? "Object" : "Array", begin(node));
    for (TSNode child : named(node)) {
      if (is(child, "method_definition")) {
        NodeId lambda = add(id, Kind::Lambda, Role::Value, child);
        functionParts(child, lambda);
      } else {
        visit(child, id, Role::Value);
      }
    }
  }

  void lowerInterface(TSNode node, NodeId parent) {
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(TypeForm::Interface);
    build_[id].modifiers = kDefinition | kPublic;
    build_.setName(id, text(field(node, f_.name)), begin(field(node, f_.name)));
    TSNode inner = field(node, f_.body);
    if (!isNull(inner))
      for (TSNode child : named(inner)) {
        if (is(child, "method_signature")) visit(child, id, Role::None);
        if (is(child, "property_signature")) variable(child, id, Role::Member, field(child, f_.name), kPublic, field(child, f_.type), {});
      }
  }

  // Is the file a module (16.2)? The namespaces of another are those of all files.
  bool isModule(TSNode root) const {
    for (TSNode child : named(root))
      if (is(child, "import_statement") || is(child, "export_statement")) return true;
    return false;
  }

  void lowerNamespace(TSNode node, NodeId parent) {
    if (parent == module_ && shared_) parent = 0;
    NodeId id = add(parent, Kind::Namespace, Role::Member, node);
    std::string_view name = text(field(node, f_.name));
    build_.setName(id, scoped(name), begin(node));
    TSNode inner = field(node, f_.body);
    if (!isNull(inner))
      for (TSNode child : named(inner)) topLevel(child, node, id);
  }

  void lowerSubscript(TSNode node, NodeId parent, Role role) {
    if (ownMember(node, parent, role)) return;
    NodeId id = add(parent, Kind::Index, role, node);
    bool first = true;
    for (TSNode child : named(node)) {
      visit(child, id, first ? Role::Receiver : Role::Argument);
      first = false;
    }
  }

  std::map<NodeId, NodeId> bodies_;  // by namespace: the block of its statements
  bool shared_ = false;              // is the file no module?
  std::vector<HandedOut> handedOut_;        // of the functions around that stand for modules
  std::set<std::string> declaredByValue_;  // members of these that are declared
  std::map<std::pair<NodeId, std::string>, NodeId> grownAt_;  // objects that get their members later, by where they are declared
  int inPlace_ = 0;                  // functions that are called where they stand so far
  std::string currentClass_;
  bool inObject_ = false, inStatic_ = false;
};

}  // namespace
}  // namespace script

SharedGrammar scriptGrammar(const TSLanguage* (*grammar)()) {
  GrammarSpec spec;
  spec.grammar = grammar;
  spec.rows = script::kRows;
  spec.valueTypes = script::kValueTypes;
  spec.nullWords = script::kNullWords;
  spec.truthiness = true;
  return SharedGrammar(spec);
}

void lowerScript(const SharedGrammar& grammar, std::string_view text, const Language::TreeLore* lore, LoweredFile& out, std::string_view forGrammar) {
  script::ScriptLowerer(grammar, text, static_cast<const ScriptLore*>(lore), out).run(forGrammar.empty() ? text : forGrammar);
}

}  // namespace elmcart
