// Lowers a PHP file. Sections are of the PHP language specification and manual.
#include <set>

#include "base/text.h"
#include "languages/php/php.h"
#include "languages/shared/lowerer.h"

extern "C" const TSLanguage* tree_sitter_php(void);

namespace elmcart {
namespace {

enum Own : uint8_t { kNamespace, kUse, kClass, kInterface, kTrait, kEnum, kProperty, kConstants, kMethod, kFunction, kGlobal, kStaticLocal, kVariable, kFunctionCall, kMethodCall, kScopedCall, kScopedProperty, kScopedConstant, kNew, kClosure, kArrow, kElse, kElseIf, kCase, kCatch, kForEach, kUseTrait, kRelative, kUnset, kClone, kArrayLit, kSubscript };

constexpr ShapeRow kRows[] = {
    {"comment", Shape::Comment}, {"php_tag", Shape::Skip}, {"text", Shape::Skip}, {"text_interpolation", Shape::Skip}, {"namespace_definition", Shape::Own, kNamespace}, {"namespace_use_declaration", Shape::Own, kUse}, {"class_declaration", Shape::Own, kClass}, {"interface_declaration", Shape::Own, kInterface}, {"trait_declaration", Shape::Own, kTrait}, {"enum_declaration", Shape::Own, kEnum},
    {"declaration_list", Shape::Pass}, {"enum_declaration_list", Shape::Pass}, {"enum_case", Shape::Skip}, {"property_declaration", Shape::Own, kProperty}, {"const_declaration", Shape::Own, kConstants}, {"method_declaration", Shape::Own, kMethod}, {"function_definition", Shape::Own, kFunction}, {"use_declaration", Shape::Own, kUseTrait},
    {"compound_statement", Shape::Block}, {"colon_block", Shape::Block}, {"if_statement", Shape::If}, {"else_clause", Shape::Own, kElse}, {"else_if_clause", Shape::Own, kElseIf}, {"while_statement", Shape::Loop}, {"do_statement", Shape::Loop}, {"for_statement", Shape::Loop}, {"foreach_statement", Shape::Own, kForEach},
    {"switch_statement", Shape::Switch}, {"switch_block", Shape::Pass}, {"case_statement", Shape::Own, kCase}, {"default_statement", Shape::Own, kCase}, {"match_expression", Shape::Switch}, {"match_block", Shape::Pass}, {"match_conditional_expression", Shape::Pass}, {"match_condition_list", Shape::Pass}, {"match_default_expression", Shape::Pass}, {"try_statement", Shape::Try}, {"catch_clause", Shape::Own, kCatch}, {"finally_clause", Shape::Own, kCatch},
    {"return_statement", Shape::Return}, {"throw_expression", Shape::Throw}, {"throw_statement", Shape::Throw}, {"break_statement", Shape::Jump}, {"continue_statement", Shape::Jump}, {"goto_statement", Shape::Jump}, {"echo_statement", Shape::Statement}, {"expression_statement", Shape::Statement}, {"exit_statement", Shape::Statement}, {"empty_statement", Shape::Skip}, {"declare_statement", Shape::Skip}, {"global_declaration", Shape::Own, kGlobal}, {"function_static_declaration", Shape::Own, kStaticLocal}, {"unset_statement", Shape::Own, kUnset}, {"named_label_statement", Shape::Skip},
    {"assignment_expression", Shape::Assign}, {"reference_assignment_expression", Shape::Assign}, {"augmented_assignment_expression", Shape::Compound}, {"update_expression", Shape::Update}, {"binary_expression", Shape::Binary}, {"unary_op_expression", Shape::Unary}, {"error_suppression_expression", Shape::Paren}, {"conditional_expression", Shape::Conditional},
    {"function_call_expression", Shape::Own, kFunctionCall}, {"member_call_expression", Shape::Own, kMethodCall}, {"nullsafe_member_call_expression", Shape::Own, kMethodCall}, {"scoped_call_expression", Shape::Own, kScopedCall}, {"member_access_expression", Shape::Member}, {"nullsafe_member_access_expression", Shape::Member}, {"scoped_property_access_expression", Shape::Own, kScopedProperty}, {"class_constant_access_expression", Shape::Own, kScopedConstant},
    {"subscript_expression", Shape::Own, kSubscript}, {"object_creation_expression", Shape::Own, kNew}, {"array_creation_expression", Shape::Own, kArrayLit}, {"list_literal", Shape::Collection}, {"array_element_initializer", Shape::Pass}, {"argument", Shape::Pass}, {"variadic_unpacking", Shape::Pass}, {"by_ref", Shape::Paren}, {"anonymous_function", Shape::Own, kClosure}, {"anonymous_function_creation_expression", Shape::Own, kClosure}, {"arrow_function", Shape::Own, kArrow},
    {"cast_expression", Shape::Cast}, {"clone_expression", Shape::Own, kClone}, {"print_intrinsic", Shape::Statement}, {"parenthesized_expression", Shape::Paren}, {"variable_name", Shape::Own, kVariable}, {"dynamic_variable_name", Shape::Other}, {"name", Shape::Name}, {"qualified_name", Shape::Name}, {"relative_scope", Shape::Own, kRelative}, {"string", Shape::Text}, {"encapsed_string", Shape::Text}, {"heredoc", Shape::Text}, {"nowdoc", Shape::Text}, {"integer", Shape::Number}, {"float", Shape::Number}, {"boolean", Shape::Boolean}, {"null", Shape::Null},
    {"attribute_list", Shape::Skip}, {"visibility_modifier", Shape::Skip}, {"yield_expression", Shape::Other}, {"include_expression", Shape::Other}, {"require_expression", Shape::Other}, {"require_once_expression", Shape::Other}, {"include_once_expression", Shape::Other}, {"sequence_expression", Shape::Collection}, {"static_modifier", Shape::Skip}, {"shell_command_expression", Shape::Other},
};

constexpr std::string_view kValueTypes[] = {"int", "float", "bool", "string", "void", "mixed", "never", "true", "false", "iterable"};
constexpr std::string_view kNullWords[] = {"null", "NULL", "Null"};

const SharedGrammar& grammar() {
  static const SharedGrammar kGrammar([] {
    GrammarSpec spec;
    spec.grammar = tree_sitter_php;
    spec.rows = kRows;
    spec.valueTypes = kValueTypes;
    spec.nullWords = kNullWords;
    spec.truthiness = true;
    return spec;
  }());
  return kGrammar;
}

// The variables that functions anywhere in the tree declare global.
struct GlobalLore : Language::TreeLore {
  std::set<std::string> names;

  uint64_t fingerprint() const override { return stableHashOfAll(names, 1); }
};

std::unique_ptr<Language::TreeLore> learnGlobals(std::span<const std::string_view> texts, unsigned) {
  auto lore = std::make_unique<GlobalLore>();
  for (std::string_view text : texts)
    for (size_t at = text.find("global $"); at != std::string_view::npos; at = text.find("global $", at + 1)) {
      size_t from = at + 7;
      while (from < text.size() && text[from] == '$') {
        size_t end = from + 1;
        while (end < text.size() && isWordByte(text[end])) ++end;
        lore->names.emplace(text.substr(from, end - from));
        while (end < text.size() && (text[end] == ',' || isBlank(text[end]))) ++end;
        from = end;
      }
    }
  for (std::string_view text : texts)
    for (size_t at = text.find("$GLOBALS["); at != std::string_view::npos; at = text.find("$GLOBALS[", at + 1)) {
      size_t from = at + 10, end = from;
      while (end < text.size() && isWordByte(text[end])) ++end;
      if (end > from && end < text.size() && text[end] == text[from - 1]) lore->names.insert("$" + std::string(text.substr(from, end - from)));
    }
  return lore;
}

class PhpLowerer : public SharedLowerer {
 public:
  PhpLowerer(const SharedGrammar& grammar, std::string_view text, const GlobalLore* lore, LoweredFile& file) : SharedLowerer(grammar, text, file), lore_(lore) {}

 private:
  struct Frame {
    std::set<std::string> declared, globals;
    bool top = false;
  };

  void unit(TSNode root) override {
    home_ = 0;
    root_ = root;
    frames_.push_back({{}, {}, true});
    for (TSNode child : named(root)) topLevel(child);
    frames_.pop_back();
  }

  bool declares(TSNode node) const {
    if (g_.shapeOf(node) != Shape::Own) return false;
    switch (g_.ownOf(node)) {
      case kNamespace: case kUse: case kClass: case kInterface: case kTrait: case kEnum: case kFunction: case kConstants: return true;
      default: return false;
    }
  }

  void topLevel(TSNode node) {
    if (is(node, "namespace_definition")) {
      TSNode name = field(node, f_.name), inner = field(node, f_.body);
      NodeId before = home_;
      home_ = build_.add(0, Kind::Namespace, Role::None, isNull(inner) ? spanOf(root_) : spanOf(node));
      build_.setName(home_, scoped(text(name)), isNull(name) ? begin(node) : begin(name));
      body_ = kNoNode;
      if (isNull(inner)) return;  // all that follows
      for (TSNode child : named(inner)) topLevel(child);
      home_ = before;
      body_ = kNoNode;
      return;
    }
    if (g_.shapeOf(node) == Shape::Comment || declares(node)) return visit(node, home_, Role::None);
    // A guarded definition: if (!class_exists(…)) { class … }
    if (body_ == kNoNode) {
      NodeId fn = function(root_, home_, FunctionForm::Initialiser, "file body", 0, kStatic | kDefinition | kPrivate);
      body_ = add(fn, Kind::Block, Role::Body, root_);
    }
    visit(node, body_, Role::None);
  }

  uint32_t modifiersOf(TSNode node) {
    uint32_t out = 0;
    for (TSNode child : all(node)) {
      std::string_view word = text(child);
      if (word == "private") out |= kPrivate;
      else if (word == "protected") out |= kProtected;
      else if (word == "public" || word == "var") out |= kPublic;
      else if (word == "static") out |= kStatic;
      else if (word == "abstract") out |= kAbstract;
      else if (word == "final") out |= kFinal;
      else if (word == "readonly") out |= kConst;
      if (is(child, "compound_statement") || is(child, "formal_parameters")) break;
    }
    if (!(out & (kPrivate | kProtected))) out |= kPublic;
    return out;
  }

  static std::string_view bare(std::string_view name) { return !name.empty() && name[0] == '$' ? name.substr(1) : name; }

  void classNode(TSNode node, NodeId parent, TypeForm form, std::string_view given = {}) {
    TSNode name = field(node, f_.name);
    NodeId id = add(parent, Kind::Type, given.empty() ? Role::Member : Role::None, node);
    build_[id].detail = static_cast<uint8_t>(form);
    auto says = [&](const char* word, const char* modifier) { return hasToken(node, word) || !isNull(childOfType(node, modifier)); };
    build_[id].modifiers = kDefinition | kPublic | (says("abstract", "abstract_modifier") ? kAbstract : 0u) | (says("final", "final_modifier") ? kFinal : 0u);
    build_.setName(id, given.empty() ? text(name) : given, isNull(name) ? begin(node) : begin(name));
    annotate(node, id);
    for (TSNode child : named(node))
      if (is(child, "base_clause") || is(child, "class_interface_clause"))
        for (TSNode base : named(child))
          if (NodeId ref = typeRef(base, id, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
    std::string outer = currentClass_;
    currentClass_ = given.empty() ? text(name) : given;
    TSNode inner = field(node, f_.body);
    if (!isNull(inner)) visitChildren(inner, id);
    currentClass_ = outer;
  }

  void functionParts(TSNode node, NodeId id, Frame frame) {
    typeRef(field(node, f_.returnType), id, Role::Type);
    TSNode list = field(node, f_.parameters);
    frames_.push_back(std::move(frame));
    parameters(list, id);
    TSNode inner = field(node, f_.body);
    if (!isNull(inner)) {
      if (file_[id].kind == Kind::Function) build_[id].modifiers |= kDefinition;
      body(inner, id);
    }
    frames_.pop_back();
  }

  void parameter(TSNode node, NodeId fn) override {
    NodeId id = add(fn, Kind::Parameter, Role::Parameter, node);
    TSNode name = field(node, f_.name);
    build_.setName(id, bare(text(name)), begin(node));
    frames_.back().declared.insert(std::string(bare(text(name))));
    typeRef(field(node, f_.type), id, Role::Type);
    if (is(node, "variadic_parameter")) build_[id].modifiers |= kPack;
    TSNode value = field(node, f_.defaultValue);
    if (!isNull(value)) visit(value, id, Role::Initialiser);
  }

  void classRef(TSNode node, NodeId parent, Role role) {
    std::string_view word = text(node);
    NodeId id = add(parent, Kind::Name, role, node);
    build_.setName(id, word == "self" || word == "static" || word == "parent" ? currentClass_ : scoped(word), begin(node));
  }

  // Known even where its first value is in a file that is not here.
  void declareGlobal(TSNode node, const std::string& name) {
    if (!globalsHere_.insert(name).second) return;
    NodeId id = add(0, Kind::Variable, Role::Member, node);
    build_.setName(id, name, begin(node));
    build_[id].modifiers = kExtern | kPublic;
  }

  bool ownAssign(TSNode node, NodeId parent, Role role) override {
    TSNode left = field(node, f_.left), right = field(node, f_.right);
    if (!is(left, "variable_name")) return false;
    std::string name(bare(text(left)));
    Frame& frame = frames_.back();
    if (name == "this" || frame.declared.count(name) || frame.globals.count("$" + name)) return false;
    if (frame.top && lore_ && lore_->names.count("$" + name)) {
      // Here is where a global gets its first value.
      frame.globals.insert("$" + name);
      NodeId id = add(home_, Kind::Variable, Role::Member, node);
      build_.setName(id, "$" + name, begin(left));
      build_[id].modifiers = kDefinition | kPublic | kOfNoScope;
      visit(right, id, Role::Initialiser);
      return true;
    }
    frame.declared.insert(name);
    NodeId id = add(parent, Kind::Variable, role, node);
    build_.setName(id, name, begin(left));
    build_[id].modifiers = kDefinition;
    visit(right, id, Role::Initialiser);
    return true;
  }

  void own(TSNode node, uint8_t tag, NodeId parent, Role role) override {
    switch (tag) {
      case kNamespace: topLevel(node); break;
      case kUse: use(node, parent); break;
      case kClass: classNode(node, parent == body_ ? home_ : parent, TypeForm::Class); break;
      case kTrait: classNode(node, parent, TypeForm::Class); break;
      case kInterface: classNode(node, parent, TypeForm::Interface); break;
      case kEnum: classNode(node, parent, TypeForm::Enum); break;
      case kUseTrait:
        for (TSNode name : named(node))
          if (is(name, "name") || is(name, "qualified_name"))
            if (NodeId ref = typeRef(name, parent, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
        break;
      case kProperty: lowerProperty(node, parent); break;
      case kConstants:
        for (TSNode child : named(node))
          if (is(child, "const_element")) {
            NodeList kids = named(child);
            if (kids.empty()) continue;
            variable(child, parent, Role::Member, kids.front(), kStatic | kConst | kConstant | kPublic, {}, kids.size() > 1 ? kids.back() : TSNode{});
          }
        break;
      case kMethod: lowerMethod(node, parent); break;
      case kFunction: {
        TSNode name = field(node, f_.name);
        NodeId id = function(node, parent == body_ ? home_ : frames_.size() > 1 ? home_ : parent, FunctionForm::Function, text(name), begin(name), kPublic);
        functionParts(node, id, {});
        break;
      }
      case kGlobal:
        for (TSNode child : named(node)) {
          std::string name(text(child));
          if (!is(child, "variable_name")) continue;
          frames_.back().globals.insert(name);
          declareGlobal(child, name);
        }
        break;
      case kSubscript: lowerSubscript(node, parent, role); break;
      case kStaticLocal:
        for (TSNode child : named(node)) {
          if (!is(child, "static_variable_declaration")) continue;
          TSNode name = field(child, f_.name);
          if (isNull(name)) name = firstNamed(child);
          NodeId id = variable(child, parent, role, name, kStatic, {}, field(child, f_.value));
          build_.setName(id, bare(text(name)), begin(name));
          frames_.back().declared.insert(std::string(bare(text(name))));
        }
        break;
      case kVariable: lowerVariable(node, parent, role); break;
      case kFunctionCall: call(node, parent, role); break;
      case kMethodCall: lowerMethodCall(node, parent, role); break;
      case kScopedCall: lowerScopedCall(node, parent, role); break;
      case kScopedProperty: case kScopedConstant: lowerScopedProperty(node, tag, parent, role); break;
      case kRelative: classRef(node, parent, role); break;
      case kNew: lowerNew(node, parent, role); break;
      case kClosure: case kArrow: lowerClosure(node, tag, parent, role); break;
      case kElse: visit(field(node, f_.body), parent, role); break;
      case kElseIf: {
        NodeId id = add(parent, Kind::If, role, node);
        condition(field(node, f_.condition), id, Role::Condition);
        visit(field(node, f_.body), id, Role::Then);
        break;
      }
      case kCase: {
        NodeId id = add(parent, Kind::Block, role, node);
        visitChildren(node, id);
        break;
      }
      case kCatch: handler(node, parent, role, field(node, f_.name), {}, field(node, f_.body)); break;
      case kForEach: lowerForEach(node, parent, role); break;
      case kUnset:
        for (TSNode child : named(node)) {
          NodeId id = add(parent, Kind::Assign, role, child);
          visit(child, id, Role::Target);
        }
        break;
      case kClone: {
        NodeId id = add(parent, Kind::Call, role, node);
        NodeId name = add(id, Kind::Name, Role::Callee, node);
        build_.setName(name, "clone", begin(node));
        visitChildren(node, id, Role::Argument);
        break;
      }
      case kArrayLit: {
        NodeId id = add(parent, Kind::Collection, role, node);
        build_.setName(id, "array", begin(node));
        visitChildren(node, id, Role::Value);
        break;
      }
      default: break;
    }
  }

  void lowerProperty(TSNode node, NodeId parent) {
    uint32_t bits = modifiersOf(node);
    for (TSNode child : named(node)) {
      if (!is(child, "property_element")) continue;
      TSNode name = field(child, f_.name), value = field(child, f_.defaultValue);
      if (isNull(name)) name = firstNamed(child);
      if (isNull(value))
        if (TSNode initializer = childOfType(child, "property_initializer"); !isNull(initializer)) value = firstNamed(initializer);
      NodeId id = variable(child, parent, Role::Member, name, bits, field(node, f_.type), value);
      build_.setName(id, bare(text(name)), begin(name));
    }
  }

  void lowerMethod(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name);
    std::string word = lowerCase(text(name));
    FunctionForm form = word == "__construct" ? FunctionForm::Constructor : word == "__destruct" ? FunctionForm::Destructor : FunctionForm::Function;
    NodeId id = function(node, parent, form, text(name), begin(name), modifiersOf(node));
    if (TSNode list = field(node, f_.parameters); !isNull(list) && form == FunctionForm::Constructor)
      for (TSNode one : named(list))
        if (is(one, "property_promotion_parameter")) {
          NodeId promoted = variable(one, parent, Role::Member, field(one, f_.name), modifiersOf(one), field(one, f_.type), {});
          build_.setName(promoted, bare(text(field(one, f_.name))), begin(one));
        }
    functionParts(node, id, {});
  }

  void lowerSubscript(TSNode node, NodeId parent, Role role) {
    // $GLOBALS['name'] is the global variable $name.
    NodeList kids = named(node);
    std::string_view key = kids.size() == 2 ? text(kids[1]) : std::string_view{};
    if (kids.size() == 2 && text(kids[0]) == "$GLOBALS" && key.size() > 2 && (key[0] == '\'' || key[0] == '"')) {
      std::string name = "$" + std::string(key.substr(1, key.size() - 2));
      declareGlobal(node, name);
      build_.setName(add(parent, Kind::Name, role, node), name, begin(node));
      return;
    }
    NodeId id = add(parent, Kind::Index, role, node);
    for (size_t i = 0; i < kids.size(); ++i) visit(kids[i], id, i == 0 ? Role::Receiver : Role::Argument);
  }

  void lowerVariable(TSNode node, NodeId parent, Role role) {
    std::string_view name = text(node);
    if (name == "$this") {
      add(parent, Kind::This, role, node);
      return;
    }
    bool global = frames_.back().globals.count(std::string(name)) > 0 || (frames_.back().top && lore_ && lore_->names.count(std::string(name)));
    NodeId id = add(parent, Kind::Name, role, node);
    build_.setName(id, global ? name : bare(name), begin(node));
  }

  void lowerMethodCall(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Call, role, node);
    NodeId member = add(id, Kind::Member, Role::Callee, node);
    visit(field(node, f_.object), member, Role::Receiver);
    TSNode name = field(node, f_.name);
    build_.setName(member, text(name), begin(name));
    arguments(field(node, f_.arguments), id);
  }

  void lowerScopedCall(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Call, role, node);
    NodeId member = add(id, Kind::Member, Role::Callee, node);
    scope(node, member);
    TSNode name = field(node, f_.name);
    build_.setName(member, text(name), begin(name));
    arguments(field(node, f_.arguments), id);
  }

  void lowerScopedProperty(TSNode node, uint8_t tag, NodeId parent, Role role) {
    NodeList kids = named(node);
    TSNode name = tag == kScopedProperty ? field(node, f_.name) : kids.size() > 1 ? kids.back() : TSNode{};
    if (text(name) == "class") {
      classRef(kids.front(), parent, role);
      return;
    }
    NodeId id = add(parent, Kind::Member, role, node);
    scope(node, id);
    if (!isNull(name)) build_.setName(id, bare(text(name)), begin(name));
  }

  void lowerNew(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Create, role, node);
    build_[id].detail = static_cast<uint8_t>(CreateForm::Heap);
    TSNode name = firstNamed(node);
    std::string_view word = text(name);
    if (is(name, "anonymous_class")) {
      std::string called = "class$" + std::to_string(++anonymous_);
      typeRefNamed(called, name, id, Role::Type, false);
      arguments(childOfType(name, "arguments"), id);
      classNode(name, id, TypeForm::Class, called);
      return;
    }
    if (word == "static") build_[id].modifiers |= kVirtual;
    if (word == "self" || word == "static") typeRefNamed(currentClass_, name, id, Role::Type, false);
    else if (is(name, "name") || is(name, "qualified_name")) {
      if (NodeId ref = typeRef(name, id, Role::Type); ref != kNoNode) build_[ref].modifiers &= ~kManaged;
    }
    arguments(childOfType(node, "arguments"), id);
  }

  void lowerClosure(TSNode node, uint8_t tag, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Lambda, role, node);
    Frame frame;
    if (tag == kArrow) frame.declared = frames_.back().declared;
    frame.globals = tag == kArrow ? frames_.back().globals : std::set<std::string>{};
    if (TSNode uses = childOfType(node, "anonymous_function_use_clause"); !isNull(uses))
      for (TSNode one : named(uses)) {
        TSNode name = is(one, "by_ref") ? firstNamed(one) : one;
        frame.declared.insert(std::string(bare(text(name))));
      }
    functionParts(node, id, std::move(frame));
  }

  void lowerForEach(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Loop, role, node);
    NodeList kids = named(node);
    TSNode inner = field(node, f_.body);
    bool first = true;
    for (TSNode child : kids) {
      if (!isNull(inner) && ts_node_eq(child, inner)) continue;
      if (first) visit(child, id, Role::Operand);
      else declareTargets(child, id);
      first = false;
    }
    if (!isNull(inner)) visit(inner, id, Role::Body);
  }

  void scope(TSNode node, NodeId parent) {
    TSNode scopeNode = field(node, f_.scope);
    if (isNull(scopeNode)) scopeNode = firstNamed(node);
    if (is(scopeNode, "name") || is(scopeNode, "qualified_name") || is(scopeNode, "relative_scope")) classRef(scopeNode, parent, Role::Receiver);
    else visit(scopeNode, parent, Role::Receiver);
  }

  void declareTargets(TSNode node, NodeId parent) {
    if (is(node, "variable_name")) {
      std::string name(bare(text(node)));
      if (frames_.back().globals.count("$" + name) || !frames_.back().declared.insert(name).second) return;
      NodeId id = add(parent, Kind::Variable, Role::None, node);
      build_.setName(id, name, begin(node));
      return;
    }
    for (TSNode child : named(node)) declareTargets(child, parent);
  }

  // isset(x), empty(x), is_null(x): tests for nothing.
  void call(TSNode node, NodeId parent, Role role) {
    TSNode callee = field(node, f_.function), list = field(node, f_.arguments);
    std::string_view word = text(callee);
    NodeList given = named(list);
    if (given.size() == 1 && (word == "isset" || word == "empty" || word == "is_null")) {
      TSNode operand = is(given[0], "argument") ? firstNamed(given[0]) : given[0];
      nullTest(node, parent, role, word == "isset" ? NullTestForm::IsNotNull : NullTestForm::IsNull, operand);
      return;
    }
    NodeId id = add(parent, Kind::Call, role, node);
    if (is(callee, "name") || is(callee, "qualified_name")) {
      NodeId name = add(id, Kind::Name, Role::Callee, callee);
      build_.setName(name, scoped(word), begin(callee));
    } else {
      visit(callee, id, Role::Callee);
    }
    arguments(list, id);
  }

  void use(TSNode node, NodeId parent) {
    std::string prefix;
    std::vector<TSNode> clauses;
    for (TSNode child : named(node)) {
      if (is(child, "namespace_name")) prefix = scoped(text(child)) + "::";
      if (is(child, "namespace_use_clause")) clauses.push_back(child);
      if (is(child, "namespace_use_group"))
        for (TSNode inner : named(child)) clauses.push_back(inner);
    }
    for (TSNode clause : clauses) {
      TSNode name{}, alias = field(clause, f_.alias);
      for (TSNode part : named(clause)) {
        if (is(part, "namespace_aliasing_clause")) alias = firstNamed(part);
        else if (isNull(name)) name = part;
      }
      if (isNull(name)) continue;
      std::string target = prefix + scoped(text(name));
      NodeId import = add(parent, Kind::Import, Role::None, clause);
      build_.setName(import, target, begin(clause));
      NodeId id = add(parent, Kind::Using, Role::None, clause);
      build_.setName(id, isNull(alias) ? lastPart(target) : text(alias), begin(clause));
      NodeId ref = add(id, Kind::TypeRef, Role::Type, clause);
      build_.setName(ref, target, begin(clause));
    }
  }

  const GlobalLore* lore_;
  TSNode root_{};
  NodeId home_ = 0, body_ = kNoNode;
  int anonymous_ = 0;  // classes without a name so far
  std::string currentClass_;
  std::vector<Frame> frames_;
  std::set<std::string> globalsHere_;
};

}  // namespace

Language phpLanguage() {
  static constexpr std::string_view kExtensions[] = {".php", ".phtml", ".inc"};
  static constexpr std::string_view kInterpreters[] = {"php"};
  Language language;
  language.id = "php";
  language.name = "PHP";
  language.extensions = kExtensions;
  language.interpreters = kInterpreters;
  language.separator = "\\";
  language.dotted = true;
  language.bareMembers = false;
  language.importsInFileOnly = true;
  language.infersTypes = true;
  language.guarantees = &phpGuarantees();
  language.mending = &phpMending();
  language.facing = &phpFacing();
  language.settling = &phpSettling();
  language.announcing = &phpAnnouncing();
  language.sound = &phpSound();
  language.handing = &phpHanding();
  language.learn = learnGlobals;
  language.lower = [](std::string_view text, const Language::TreeLore* lore, LoweredFile& out) { PhpLowerer(grammar(), text, static_cast<const GlobalLore*>(lore), out).run(); };
  language.parseOnly = [](std::string_view text) { parseOnlyWith(grammar(), text); };
  language.grammar = tree_sitter_php;
  language.writer = phpWriter;
  language.harness = phpHarness;
  return language;
}

}  // namespace elmcart
