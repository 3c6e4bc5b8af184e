// Lowers a Swift file. Chapters are of The Swift Programming Language, 5.9.
#include <set>

#include "base/text.h"
#include "languages/shared/directives.h"
#include "languages/shared/lowerer.h"
#include "languages/swift/rephrase.h"
#include "languages/swift/swift.h"

extern "C" const TSLanguage* tree_sitter_swift(void);

namespace elmcart {
namespace {

enum Own : uint8_t { kImport, kType, kProtocol, kFunction, kInit, kDeinit, kProperty, kIf, kGuardStmt, kFor, kWhile, kTransfer, kCall, kNavigation, kLambda, kSwitchEntry, kDo, kCatch, kPostfix, kCast, kTernary, kAlias, kSelf, kSuper, kTryExpr, kDictionary, kArrayLit, kNilCoalesce, kArithmetic, kSubscript };

constexpr ShapeRow kRows[] = {
    {"comment", Shape::Comment}, {"multiline_comment", Shape::Comment}, {"import_declaration", Shape::Own, kImport}, {"class_declaration", Shape::Own, kType}, {"protocol_declaration", Shape::Own, kProtocol}, {"class_body", Shape::Pass}, {"enum_class_body", Shape::Pass}, {"enum_entry", Shape::Skip}, {"typealias_declaration", Shape::Own, kAlias}, {"associatedtype_declaration", Shape::Skip},
    {"function_declaration", Shape::Own, kFunction}, {"protocol_function_declaration", Shape::Own, kFunction}, {"init_declaration", Shape::Own, kInit}, {"deinit_declaration", Shape::Own, kDeinit}, {"property_declaration", Shape::Own, kProperty}, {"protocol_property_declaration", Shape::Skip}, {"subscript_declaration", Shape::Own, kSubscript}, {"operator_declaration", Shape::Skip}, {"precedence_group_declaration", Shape::Skip},
    {"statements", Shape::Block}, {"if_statement", Shape::Own, kIf}, {"guard_statement", Shape::Own, kGuardStmt}, {"for_statement", Shape::Own, kFor}, {"while_statement", Shape::Own, kWhile}, {"repeat_while_statement", Shape::Own, kWhile}, {"switch_statement", Shape::Switch}, {"switch_entry", Shape::Own, kSwitchEntry}, {"switch_pattern", Shape::Skip}, {"where_keyword", Shape::Skip}, {"do_statement", Shape::Own, kDo}, {"catch_block", Shape::Own, kCatch}, {"control_transfer_statement", Shape::Own, kTransfer},
    {"assignment", Shape::Assign}, {"directly_assignable_expression", Shape::Paren}, {"call_expression", Shape::Own, kCall}, {"constructor_expression", Shape::Own, kCall}, {"navigation_expression", Shape::Own, kNavigation}, {"postfix_expression", Shape::Own, kPostfix}, {"prefix_expression", Shape::Unary}, {"try_expression", Shape::Own, kTryExpr}, {"await_expression", Shape::Await}, {"as_expression", Shape::Own, kCast}, {"check_expression", Shape::Other}, {"ternary_expression", Shape::Own, kTernary}, {"nil_coalescing_expression", Shape::Own, kNilCoalesce},
    {"equality_expression", Shape::Binary}, {"comparison_expression", Shape::Binary}, {"conjunction_expression", Shape::Binary}, {"disjunction_expression", Shape::Binary}, {"additive_expression", Shape::Own, kArithmetic}, {"multiplicative_expression", Shape::Own, kArithmetic}, {"infix_expression", Shape::Other}, {"range_expression", Shape::Other}, {"bitwise_operation", Shape::Other},
    {"lambda_literal", Shape::Own, kLambda}, {"simple_identifier", Shape::Name}, {"self_expression", Shape::Own, kSelf}, {"super_expression", Shape::Own, kSuper}, {"value_argument", Shape::Pass}, {"value_arguments", Shape::Pass}, {"value_argument_label", Shape::Skip}, {"tuple_expression", Shape::Paren}, {"dictionary_literal", Shape::Own, kDictionary}, {"array_literal", Shape::Own, kArrayLit},
    {"line_string_literal", Shape::Text}, {"multi_line_string_literal", Shape::Text}, {"raw_string_literal", Shape::Text}, {"interpolated_expression", Shape::Pass}, {"integer_literal", Shape::Number}, {"real_literal", Shape::Number}, {"hex_literal", Shape::Number}, {"bin_literal", Shape::Number}, {"oct_literal", Shape::Number}, {"boolean_literal", Shape::Boolean}, {"regex_literal", Shape::Text},
    {"modifiers", Shape::Skip}, {"attribute", Shape::Skip}, {"type_parameters", Shape::Skip}, {"type_arguments", Shape::Skip}, {"user_type", Shape::Name}, {"optional_type", Shape::Skip}, {"type_annotation", Shape::Skip}, {"value_binding_pattern", Shape::Skip}, {"pattern", Shape::Skip}, {"where_clause", Shape::Skip}, {"where_keyword", Shape::Skip}, {"throws", Shape::Skip}, {"async", Shape::Skip}, {"else", Shape::Skip}, {"type_constraints", Shape::Skip}, {"directive", Shape::Skip}, {"diagnostic", Shape::Skip}, {"shebang_line", Shape::Skip}, {"availability_condition", Shape::Skip},
};

constexpr std::string_view kValueTypes[] = {"Int", "Int8", "Int16", "Int32", "Int64", "UInt", "UInt8", "UInt16", "UInt32", "UInt64", "Double", "Float", "CGFloat", "Bool", "String", "Character", "Void", "URL", "Date", "Data", "TimeInterval"};
constexpr std::string_view kNullWords[] = {"nil"};

const SharedGrammar& grammar() {
  static const SharedGrammar kGrammar([] {
    GrammarSpec spec;
    spec.grammar = tree_sitter_swift;
    spec.rows = kRows;
    spec.valueTypes = kValueTypes;
    spec.nullWords = kNullWords;
    return spec;
  }());
  return kGrammar;
}

class SwiftLowerer : public SharedLowerer {
 public:
  using SharedLowerer::SharedLowerer;

 private:
  uint32_t modifiersOf(TSNode node) {
    uint32_t out = 0;
    for (TSNode child : all(node)) {
      if (is(child, "modifiers")) out |= modifiersOf(child);
      std::string_view word = text(child);
      if (is(child, "visibility_modifier") || is(child, "property_modifier") || is(child, "inheritance_modifier") || is(child, "member_modifier") || !ts_node_is_named(child)) {
        if (word.substr(0, 7) == "private" && word != "private(set)") out |= kPrivate;
        else if (word == "fileprivate") out |= kPrivate;
        else if (word == "public" || word == "open" || word == "internal") out |= kPublic;
        else if (word == "static" || (word == "class" && is(node, "function_declaration")) || (word == "class" && is(node, "property_declaration"))) out |= kStatic;
        else if (word == "override") out |= kOverride;
        else if (word == "final") out |= kFinal;
      }
      if (is(child, "class_body") || is(child, "function_body")) break;
    }
    return out;
  }
  uint32_t shown(uint32_t bits) const { return bits & (kPrivate | kProtected) ? bits & ~uint32_t{kPublic} : bits | kPublic; }

  // A written type without its sugar: "X?" is X, "[K: V]" a dictionary, "[X]" an array.
  NodeId type(TSNode node, NodeId parent, Role role) {
    if (isNull(node)) return kNoNode;
    TSNode inner = node;
    if (is(inner, "type_annotation")) inner = field(inner, f_.name);
    if (is(inner, "optional_type")) inner = field(inner, f_.wrapped);
    if (isNull(inner)) inner = node;
    if (is(inner, "dictionary_type") || is(inner, "array_type")) {
      NodeId id = add(parent, Kind::TypeRef, role, inner);
      build_.setName(id, is(inner, "dictionary_type") ? "Dictionary" : "Array", begin(inner));
      for (TSNode part : named(inner)) type(part, id, Role::TypeArgument);
      return id;
    }
    return typeRef(inner, parent, role);
  }

  void classNode(TSNode node, NodeId parent, TypeForm form) {
    TSNode name = field(node, f_.name), inner = field(node, f_.body);
    std::string_view kind = text(field(node, f_.declarationKind));
    if (kind == "extension") {
      // Its members join the type that it extends.
      std::string outer = currentClass_, extended = extending_;
      std::string_view word = text(name);
      currentClass_ = scoped(word.substr(0, word.find('<')));
      extending_ = currentClass_;
      ++classDepth_;
      if (!isNull(inner)) visitChildren(inner, parent);
      --classDepth_;
      currentClass_ = outer;
      extending_ = extended;
      return;
    }
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    if (kind == "struct") form = TypeForm::Struct;
    if (kind == "enum") form = TypeForm::Enum;
    build_[id].detail = static_cast<uint8_t>(form);
    annotate(node, id);
    build_[id].modifiers = shown(modifiersOf(node)) | kDefinition;
    build_.setName(id, text(name), begin(name));
    for (TSNode child : named(node))
      if (is(child, "inheritance_specifier"))
        if (NodeId ref = typeRef(firstNamed(child), id, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
    std::string outer = currentClass_, extended = extending_;
    currentClass_ = text(name);
    extending_.clear();
    ++classDepth_;
    if (!isNull(inner)) visitChildren(inner, id);
    --classDepth_;
    currentClass_ = outer;
    extending_ = extended;
  }

  void functionBody(TSNode node, NodeId id) {
    TSNode inner = field(node, f_.body);
    if (isNull(inner)) inner = childOfType(node, "function_body");
    if (isNull(inner)) return;
    if (file_[id].kind == Kind::Function) build_[id].modifiers |= kDefinition;
    int outer = classDepth_;
    classDepth_ = 0;
    ++functionDepth_;
    TSNode block = is(inner, "statements") ? inner : childOfType(inner, "statements");
    NodeId body = add(id, Kind::Block, Role::Body, inner);
    if (!isNull(block)) {
      NodeList steps = named(block);
      // A single expression is what the function returns.
      Shape only = steps.size() == 1 ? g_.shapeOf(steps[0]) : Shape::Block;
      bool returns = only == Shape::Name || (only == Shape::Own && (g_.ownOf(steps[0]) == kCall || g_.ownOf(steps[0]) == kNavigation || g_.ownOf(steps[0]) == kNilCoalesce)) || only == Shape::Number || only == Shape::Text;
      if (returns) {
        NodeId result = add(body, Kind::Return, Role::None, steps[0]);
        visit(steps[0], result, Role::Value);
      } else {
        statements(block, body);
      }
    }
    --functionDepth_;
    classDepth_ = outer;
  }

  void parameterList(TSNode node, NodeId fn) {
    NodeId last = kNoNode;
    bool value = false;
    for (TSNode child : all(node)) {
      if (is(child, "parameter") || is(child, "lambda_parameter")) {
        last = add(fn, Kind::Parameter, Role::Parameter, child);
        TSNode name{}, written{};
        for (TSNode part : named(child)) {
          if (is(part, "simple_identifier")) name = part;
          else written = part;
        }
        if (isNull(name)) name = child;
        build_.setName(last, text(name), begin(name));
        type(written, last, Role::Type);
        value = false;
      } else if (text(child) == "=") {
        value = last != kNoNode;
      } else if (value && ts_node_is_named(child)) {
        visit(child, last, Role::Initialiser);
        value = false;
      }
      if (is(child, "function_body")) break;
    }
  }

  // defer { lock.unlock() } and lock.unlock() end what lock.lock() began.
  TSNode lockOf(TSNode statement, bool taking) const override {
    TSNode call = statement;
    if (!taking && isDeferred(statement)) {
      TSNode suffix = childOfType(call, "call_suffix"), lambda = isNull(suffix) ? TSNode{} : childOfType(suffix, "lambda_literal");
      TSNode block = isNull(lambda) ? TSNode{} : childOfType(lambda, "statements");
      call = isNull(block) ? TSNode{} : firstNamed(block);
    }
    if (!is(call, "call_expression")) return {};
    TSNode callee = firstNamed(call);
    if (!is(callee, "navigation_expression")) return {};
    TSNode suffix = childOfType(callee, "navigation_suffix");
    return !isNull(suffix) && text(firstNamed(suffix)) == (taking ? "lock" : "unlock") ? firstNamed(callee) : TSNode{};
  }
  bool isDeferred(TSNode statement) const override { return is(statement, "call_expression") && text(firstNamed(statement)) == "defer"; }

  bool ownAssign(TSNode node, NodeId parent, Role role) override {
    TSNode target = field(node, f_.target), result = field(node, f_.result);
    std::string_view op = text(field(node, f_.op));
    NodeId id = add(parent, Kind::Assign, role, node);
    build_[id].detail = static_cast<uint8_t>(op.size() > 1 ? AssignForm::Compound : AssignForm::Plain);
    visit(target, id, Role::Target);
    if (text(result) == "nil") build_[add(id, Kind::Literal, Role::Value, result)].detail = static_cast<uint8_t>(LiteralForm::Null);
    else visit(result, id, Role::Value);
    return true;
  }

  void property(TSNode node, NodeId parent) {
    TSNode pattern = field(node, f_.name), value = field(node, f_.value), computed = field(node, f_.computedValue);
    TSNode name = isNull(pattern) ? TSNode{} : firstNamed(pattern);
    if (!is(name, "simple_identifier")) {
      if (!isNull(value)) visit(value, parent, Role::None);
      return;
    }
    TSNode written = childOfType(node, "type_annotation");
    bool local = functionDepth_ > 0 && classDepth_ == 0;
    uint32_t bits = local ? 0u : shown(modifiersOf(node));
    // A private global is its file's own.
    if (!local && classDepth_ == 0 && (bits & kPrivate)) bits |= kStatic;
    std::string qualified = extending_.empty() || local ? std::string(text(name)) : extending_ + "::" + std::string(text(name));
    if (!isNull(computed)) {
      TSNode getter = childOfType(computed, "computed_getter"), setter = childOfType(computed, "computed_setter");
      NodeId id = function(node, parent, FunctionForm::Getter, qualified, begin(name), bits);
      type(written, id, Role::Type);
      functionBodyOf(isNull(getter) ? computed : getter, id);
      if (!isNull(setter)) {
        NodeId set = function(setter, parent, FunctionForm::Setter, (extending_.empty() ? "" : extending_ + "::") + "set " + std::string(text(name)), begin(name), bits);
        functionBodyOf(setter, set);
      }
      return;
    }
    if (text(childOfType(node, "value_binding_pattern")).substr(0, 3) == "let") bits |= kConst;
    bool lazyWord = !isNull(childOfType(node, "modifiers")) && text(childOfType(node, "modifiers")).find("lazy") != std::string_view::npos;
    NodeId id = add(parent, Kind::Variable, local ? Role::None : Role::Member, node);
    // Declarations, Global and static: made when first asked for, under a guard; `lazy var` without one.
    VariableForm form = lazyWord ? VariableForm::LazyUnguarded : !local && !isNull(value) && (classDepth_ == 0 || (bits & kStatic)) ? VariableForm::Lazy : VariableForm::Plain;
    build_[id].detail = static_cast<uint8_t>(form);
    build_.setName(id, qualified, begin(name));
    build_[id].modifiers = bits | kDefinition;
    type(written, id, Role::Type);
    if (!isNull(value) && text(value) != "nil") {
      // { … }() makes the value by a closure: what it returns.
      visit(value, id, Role::Initialiser);
    }
    // Properties, Property Observers: run whenever it is set.
    TSNode observers = childOfType(node, "willset_didset_block");
    for (TSNode one : isNull(observers) || local ? NodeList{} : named(observers)) {
      NodeId fn = function(one, parent, FunctionForm::Function, (extending_.empty() ? "" : extending_ + "::") + (is(one, "didset_clause") ? "didSet " : "willSet ") + std::string(text(name)), begin(name), bits & ~uint32_t{kConst});
      functionBodyOf(one, fn);
    }
  }

  // Subscripts: what runs when an element is read or set.
  void lowerSubscript(TSNode node, NodeId parent) {
    TSNode computed = childOfType(node, "computed_property");
    if (isNull(computed)) return;
    TSNode getter = childOfType(computed, "computed_getter"), setter = childOfType(computed, "computed_setter");
    for (TSNode holder : {isNull(getter) ? computed : getter, setter}) {
      if (isNull(holder)) continue;
      bool sets = !isNull(setter) && ts_node_eq(holder, setter);
      NodeId id = function(holder, parent, FunctionForm::Function, (extending_.empty() ? "" : extending_ + "::") + (sets ? "set subscript" : "subscript"), begin(node), shown(modifiersOf(node)));
      parameterList(node, id);
      functionBodyOf(holder, id);
    }
  }

  void functionBodyOf(TSNode holder, NodeId id) {
    build_[id].modifiers |= kDefinition;
    TSNode block = childOfType(holder, "statements");
    int outer = classDepth_;
    classDepth_ = 0;
    ++functionDepth_;
    NodeId body = add(id, Kind::Block, Role::Body, holder);
    if (!isNull(block)) {
      NodeList steps = named(block);
      Shape only = steps.size() == 1 ? g_.shapeOf(steps[0]) : Shape::Block;
      if (only == Shape::Name || (only == Shape::Own && (g_.ownOf(steps[0]) == kCall || g_.ownOf(steps[0]) == kNavigation))) {
        NodeId result = add(body, Kind::Return, Role::None, steps[0]);
        visit(steps[0], result, Role::Value);
      } else {
        statements(block, body);
      }
    }
    --functionDepth_;
    classDepth_ = outer;
  }

  // if let x = y, a > b: each part of the condition in turn.
  void conditions(TSNode node, NodeId id, NodeId bindInto) {
    bool binding = false;
    TSNode name{};
    for (TSNode child : all(node)) {
      if (is(child, "statements") || text(child) == "{" || is(child, "else")) break;
      if (is(child, "value_binding_pattern")) {
        binding = true;
        continue;
      }
      if (binding && isNull(name) && is(child, "simple_identifier")) {
        name = child;
        continue;
      }
      if (!ts_node_is_named(child)) continue;
      if (binding && !isNull(name)) {
        nullTest(child, id, Role::Condition, NullTestForm::IsNotNull, child);
        variable(child, bindInto, Role::None, name, kConst, {}, child);
        binding = false;
        name = {};
      } else if (!is(child, "type_annotation")) {
        condition(child, id, Role::Condition);
      }
    }
    // if let x { … }: the name is tested itself.
    if (binding && !isNull(name)) nullTest(name, id, Role::Condition, NullTestForm::IsNotNull, name);
  }

  void own(TSNode node, uint8_t tag, NodeId parent, Role role) override {
    switch (tag) {
      case kImport: {
        NodeId id = add(parent, Kind::Import, Role::None, node);
        build_.setName(id, text(firstNamed(node)), begin(node));
        break;
      }
      case kType: classNode(node, parent, TypeForm::Class); break;
      case kProtocol: lowerProtocol(node, parent); break;
      case kFunction: lowerFunction(node, parent); break;
      case kInit: {
        NodeId id = function(node, parent, FunctionForm::Constructor, extending_.empty() ? "init" : extending_ + "::init", begin(node), shown(modifiersOf(node)));
        parameterList(node, id);
        functionBody(node, id);
        break;
      }
      case kDeinit: {
        NodeId id = function(node, parent, FunctionForm::Destructor, "deinit", begin(node), kPublic);
        functionBody(node, id);
        break;
      }
      case kProperty: property(node, parent); break;
      case kSubscript: lowerSubscript(node, parent); break;
      case kIf: lowerIf(node, parent, role); break;
      case kGuardStmt: lowerGuardStmt(node, parent, role); break;
      case kFor: lowerFor(node, parent, role); break;
      case kWhile: {
        NodeId id = add(parent, Kind::Loop, role, node);
        conditions(node, id, id);
        if (is(node, "repeat_while_statement"))  // its condition has no field
          if (NodeList kids = named(node); !kids.empty() && !is(kids.back(), "statements")) condition(kids.back(), id, Role::Condition);
        if (TSNode block = childOfType(node, "statements"); !isNull(block)) visit(block, id, Role::Body);
        break;
      }
      case kSwitchEntry: case kCatch: lowerEntry(node, parent, role); break;
      case kDo: {
        NodeId id = add(parent, Kind::Try, role, node);
        for (TSNode child : named(node)) visit(child, id, is(child, "statements") ? Role::Body : Role::Handler);
        break;
      }
      case kTransfer: lowerTransfer(node, parent, role); break;
      case kCall:
        if (!hoisted(node, parent, role)) call(node, parent, role);
        break;
      case kArithmetic:
        if (ts_node_eq(node, hoisted_)) visit(named(node).back(), parent, role);
        else binary(node, parent, role);
        break;
      case kNavigation: {
        if (hoisted(node, parent, role)) break;
        TSNode object = firstNamed(node), suffix = childOfType(node, "navigation_suffix");
        NodeId id = addBehind(parent, Kind::Member, role, node);
        visit(object, id, Role::Receiver);
        if (TSNode name = isNull(suffix) ? TSNode{} : firstNamed(suffix); !isNull(name)) build_.setName(id, text(name), begin(name));
        break;
      }
      case kPostfix: visit(firstNamed(node), parent, role); break;
      case kTryExpr: {  // behind the operator stands what may fail
        NodeList kids = named(node);
        if (!kids.empty()) visit(kids.back(), parent, role);
        break;
      }
      case kCast: {
        NodeList kids = named(node);
        NodeId id = add(parent, Kind::Cast, role, node);
        if (kids.size() > 1) type(kids.back(), id, Role::Type);
        if (!kids.empty()) visit(kids.front(), id, Role::Operand);
        break;
      }
      case kTernary: lowerTernary(node, parent, role); break;
      case kNilCoalesce: lowerNilCoalesce(node, parent, role); break;
      case kLambda: lowerLambda(node, parent, role); break;
      case kAlias: {
        TSNode name = field(node, f_.name);
        NodeId id = add(parent, Kind::Alias, Role::Member, node);
        build_.setName(id, text(name), begin(name));
        type(field(node, f_.value), id, Role::Type);
        break;
      }
      case kSuper: {  // the object as one of its base
        NodeId id = add(parent, Kind::This, role, node);
        build_.setName(id, "super", begin(node));
        break;
      }
      case kSelf: lowerSelf(node, parent, role); break;
      case kDictionary: case kArrayLit: {
        NodeId id = add(parent, Kind::Collection, role, node);
        build_.setName(id, tag == kDictionary ? "Dictionary" : "Array", begin(node));
        visitChildren(node, id, Role::Value);
        break;
      }
      default: break;
    }
  }

  // a + b.c(): the grammar takes the member of the sum. The operator is put above the
  // member access or call; the sum then stands for its right side.
  bool hoisted(TSNode node, NodeId parent, Role role) {
    TSNode inner = node;
    while (is(inner, "navigation_expression") || is(inner, "call_expression") || is(inner, "postfix_expression")) inner = firstNamed(inner);
    bool sum = is(inner, "additive_expression") || is(inner, "multiplicative_expression");
    NodeList sides = sum ? named(inner) : NodeList{};
    if (sides.size() < 2 || ts_node_eq(inner, hoisted_)) return false;
    NodeId id = add(parent, Kind::Other, role, node);
    visit(sides.front(), id, Role::Operand);
    TSNode outer = hoisted_;
    hoisted_ = inner;
    visit(node, id, Role::Operand);
    hoisted_ = outer;
    return true;
  }
  // Of a member access or call of a sum's right side: it begins there.
  NodeId addBehind(NodeId parent, Kind kind, Role role, TSNode node) {
    NodeId id = add(parent, kind, role, node);
    if (!isNull(hoisted_) && begin(node) == begin(hoisted_)) build_[id].span.begin = begin(named(hoisted_).back());
    return id;
  }

  void lowerProtocol(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name), inner = field(node, f_.body);
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(TypeForm::Interface);
    build_[id].modifiers = kDefinition | kPublic;
    build_.setName(id, text(name), begin(name));
    if (!isNull(inner)) visitChildren(inner, id);
  }

  void lowerFunction(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name);
    if (functionDepth_ > 0 && classDepth_ == 0) {
      NodeId id = add(parent, Kind::Variable, Role::None, node);
      build_.setName(id, text(name), begin(name));
      build_[id].modifiers = kDefinition | kConst;
      NodeId lambda = add(id, Kind::Lambda, Role::Initialiser, node);
      parameterList(node, lambda);
      functionBody(node, lambda);
      return;
    }
    std::string qualified = extending_.empty() ? std::string(text(name)) : extending_ + "::" + std::string(text(name));
    uint32_t bits = shown(modifiersOf(node));
    NodeId id = function(node, parent, FunctionForm::Function, qualified, begin(name), bits);
    annotate(node, id);
    if (is(node, "protocol_function_declaration")) build_[id].modifiers |= kAbstract;
    // What follows the arrow.
    bool arrow = false;
    for (TSNode part : all(node)) {
      if (arrow && ts_node_is_named(part)) {
        type(part, id, Role::Type);
        break;
      }
      arrow |= text(part) == "->";
    }
    parameterList(node, id);
    bool outer = inStatic_;
    inStatic_ = bits & kStatic;
    functionBody(node, id);
    inStatic_ = outer;
  }

  void lowerIf(TSNode node, NodeId parent, Role role) {
    NodeId outer = add(parent, Kind::Block, role, node);
    NodeId id = add(outer, Kind::If, Role::None, node);
    conditions(node, id, outer);
    bool otherwise = false;
    for (TSNode child : all(node)) {
      if (is(child, "else")) otherwise = true;
      if (is(child, "statements")) visit(child, id, otherwise ? Role::Else : Role::Then);
      if (is(child, "if_statement")) visit(child, id, Role::Else);
    }
  }

  void lowerGuardStmt(TSNode node, NodeId parent, Role role) {
    // guard c else { leave }: if not c, leave.
    NodeId id = add(parent, Kind::If, role, node);
    NodeId negated = add(id, Kind::Logic, Role::Condition, node);
    build_[negated].detail = static_cast<uint8_t>(LogicForm::Not);
    conditions(node, negated, parent);
    if (TSNode block = childOfType(node, "statements"); !isNull(block)) visit(block, id, Role::Then);
  }

  // A case of a switch, or a catch, with what else must hold for it.
  void lowerEntry(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Block, role, node);
    if (TSNode which = childOfType(node, "where_clause"); !isNull(which)) visitChildren(which, id);
    for (bool where = false; TSNode child : named(node)) {  // or its keyword and condition as children
      if (where) visit(child, id, Role::None);
      where = is(child, "where_keyword");
    }
    if (TSNode block = childOfType(node, "statements"); !isNull(block)) statements(block, id);
  }

  void lowerFor(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Loop, role, node);
    TSNode item = field(node, f_.item), over = field(node, f_.collection);
    TSNode name = isNull(item) ? TSNode{} : firstNamed(item);
    if (is(name, "simple_identifier")) {
      NodeId local = add(id, Kind::Variable, Role::None, name);
      build_.setName(local, text(name), begin(name));
    }
    visit(over, id, Role::Operand);
    if (TSNode which = childOfType(node, "where_clause"); !isNull(which)) visitChildren(which, id);
    if (TSNode block = childOfType(node, "statements"); !isNull(block)) visit(block, id, Role::Body);
  }

  void lowerTransfer(TSNode node, NodeId parent, Role role) {
    std::string_view word = text(node);
    Kind kind = word.substr(0, 6) == "return" ? Kind::Return : word.substr(0, 5) == "throw" ? Kind::Throw : Kind::Jump;
    NodeId id = add(parent, kind, role, node);
    TSNode result = field(node, f_.result);
    if (kind != Kind::Jump && !isNull(result) && text(result) != "nil") visit(result, id, Role::Value);
  }

  void lowerTernary(TSNode node, NodeId parent, Role role) {
    NodeList kids = named(node);
    if (kids.size() < 3) return;
    NodeId id = add(parent, Kind::Conditional, role, node);
    condition(kids[0], id, Role::Condition);
    visit(kids[1], id, Role::Then);
    visit(kids[2], id, Role::Else);
  }

  void lowerNilCoalesce(TSNode node, NodeId parent, Role role) {
    NodeList kids = named(node);
    if (kids.size() < 2) return;
    NodeId id = add(parent, Kind::Conditional, role, node);
    nullTest(kids[0], id, Role::Condition, NullTestForm::IsNotNull, kids[0]);
    visit(kids[0], id, Role::Then);
    visit(kids[1], id, Role::Else);
  }

  void lowerLambda(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Lambda, role, node);
    annotate(node, id);
    if (TSNode form = childOfType(node, "lambda_function_type"); !isNull(form))
      if (TSNode list = childOfType(form, "lambda_function_type_parameters"); !isNull(list)) parameterList(list, id);
    if (TSNode block = childOfType(node, "statements"); !isNull(block)) {
      NodeId body = add(id, Kind::Block, Role::Body, block);
      ++functionDepth_;
      int outer = classDepth_;
      classDepth_ = 0;
      statements(block, body);
      classDepth_ = outer;
      --functionDepth_;
    }
  }

  void lowerSelf(TSNode node, NodeId parent, Role role) {
    if (inStatic_) {
      NodeId id = add(parent, Kind::Name, role, node);
      build_.setName(id, currentClass_, begin(node));
    } else {
      add(parent, Kind::This, role, node);
    }
  }

  bool ownName(TSNode node, NodeId parent, Role role) override {
    if (text(node) != "Self" || currentClass_.empty()) return false;
    NodeId id = add(parent, Kind::Name, role, node);
    build_.setName(id, currentClass_, begin(node));
    return true;
  }

  void call(TSNode node, NodeId parent, Role role) {
    NodeList kids = named(node);
    TSNode callee = kids.empty() ? TSNode{} : kids.front(), suffix = childOfType(node, "call_suffix");
    TSNode list = isNull(suffix) ? childOfType(node, "value_arguments") : childOfType(suffix, "value_arguments");
    TSNode lambda = isNull(suffix) ? TSNode{} : childOfType(suffix, "lambda_literal");
    // container[key]
    if (!isNull(list) && text(list).substr(0, 1) == "[") {
      NodeId id = add(parent, Kind::Index, role, node);
      visit(callee, id, Role::Receiver);
      for (TSNode one : named(list)) visit(is(one, "value_argument") ? field(one, f_.value) : one, id, Role::Argument);
      return;
    }
    // String(contentsOf: …) reads a file; String(4) does not: the argument's label is part of the name.
    if (is(callee, "simple_identifier") && !isNull(list) && text(list).substr(0, 11) == "(contentsOf" && (text(callee) == "String" || text(callee) == "Data")) {
      NodeId id = add(parent, Kind::Call, role, node);
      build_.setName(add(id, Kind::Name, Role::Callee, callee), std::string(text(callee)) + "::contentsOf", begin(callee));
      for (TSNode one : named(list)) visit(is(one, "value_argument") ? field(one, f_.value) : one, id, Role::Argument);
      return;
    }
    // queue.sync { … } keeps others out.
    if (is(callee, "navigation_expression") && !isNull(lambda)) {
      TSNode name = childOfType(callee, "navigation_suffix");
      std::string_view method = isNull(name) ? std::string_view{} : text(firstNamed(name));
      if (method == "sync" || method == "withLock") {
        NodeId guard = add(parent, Kind::Guard, role, node);
        visit(firstNamed(callee), guard, Role::Lock);
        NodeId block = add(guard, Kind::Block, Role::Body, lambda);
        if (TSNode inner = childOfType(lambda, "statements"); !isNull(inner)) statements(inner, block);
        return;
      }
    }
    // self.init() and Self() in a class's own function make one of the class that is asked.
    if (inStatic_ && (text(callee) == "self.init" || text(callee) == "Self" || text(callee) == "Self.init")) {
      NodeId id = add(parent, Kind::Create, role, node);
      build_[id].detail = static_cast<uint8_t>(CreateForm::Heap);
      build_[id].modifiers |= kVirtual;
      NodeId ref = add(id, Kind::TypeRef, Role::Type, callee);
      build_.setName(ref, currentClass_, begin(callee));
      if (!isNull(list))
        for (TSNode one : named(list)) visit(is(one, "value_argument") ? field(one, f_.value) : one, id, Role::Argument);
      return;
    }
    // { … }(): what the closure gives back.
    if (is(callee, "lambda_literal") && isNull(lambda)) {
      TSNode block = childOfType(callee, "statements");
      if (!isNull(block)) {
        NodeList steps = named(block);
        if (steps.size() == 1) {
          TSNode only = steps[0];
          visit(is(only, "control_transfer_statement") ? field(only, f_.result) : only, parent, role);
          return;
        }
      }
    }
    NodeId id = addBehind(parent, Kind::Call, role, node);
    visit(callee, id, Role::Callee);
    if (!isNull(list))
      for (TSNode one : named(list)) {
        TSNode value = is(one, "value_argument") ? field(one, f_.value) : one;
        if (isNull(value) || text(value) == "nil") add(id, Kind::Literal, Role::Argument, one);
        else visit(value, id, Role::Argument);
      }
    if (!isNull(lambda)) visit(lambda, id, Role::Argument);
  }

  std::string currentClass_, extending_;
  TSNode hoisted_{};  // the sum of which a member access or call takes the right side
  int classDepth_ = 0, functionDepth_ = 0;
  bool inStatic_ = false;
};

}  // namespace

Language swiftLanguage() {
  static constexpr std::string_view kExtensions[] = {".swift"};
  static constexpr std::string_view kInterpreters[] = {"swift"};
  Language language;
  language.id = "swift";
  language.name = "Swift";
  language.extensions = kExtensions;
  language.interpreters = kInterpreters;
  language.separator = ".";
  language.dotted = true;
  language.infersTypes = true;
  language.createsByCall = true;
  language.marksConstants = true;
  language.guarantees = &swiftGuarantees();
  language.testImports = {"XCTest"};
  language.facing = &swiftFacing();
  language.settling = &swiftSettling();
  language.announcing = &swiftAnnouncing();
  language.mending = &swiftMending();
  language.sound = &swiftSound();
  language.handing = &swiftHanding();
  language.lower = [](std::string_view text, const Language::TreeLore*, LoweredFile& out) {
    lowerBranches(text, false, out, [](std::string& prepared, LoweredFile& into) {
      blankWords(prepared, "nonisolated(unsafe)");
      SwiftLowerer(grammar(), prepared, into).run(rephraseSwift(prepared).text());
    });
  };
  language.grammar = tree_sitter_swift;
  language.forGrammar = [](std::string_view text) {
    std::string prepared(text);
    blankWords(prepared, "nonisolated(unsafe)");
    return std::string(rephraseSwift(prepared).text());
  };
  language.writer = swiftWriter;
  language.parseOnly = [](std::string_view text) { parseOnlyWith(grammar(), text); };
  return language;
}

}  // namespace elmcart
