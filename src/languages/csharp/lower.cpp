// Lowers a C# file. Sections are of the C# language specification (ECMA-334, 6th edition).
#include "base/text.h"
#include "languages/csharp/csharp.h"
#include "languages/csharp/rephrase.h"
#include "languages/shared/directives.h"
#include "languages/shared/lowerer.h"

extern "C" const TSLanguage* tree_sitter_c_sharp(void);

namespace elmcart {
namespace {

enum Own : uint8_t { kUsing, kNamespace, kClass, kStruct, kInterface, kEnum, kField, kProperty, kMethod, kConstructor, kDestructor, kLocalFunction, kLocal, kLock, kUsingStmt, kTypeOf, kCatch, kImplicitNew, kIsPattern, kArrowBody, kConditionalAccess, kObjectNew, kAsCast, kGenericName, kArrayNew, kForEach, kSection, kEvent, kIndexer };

constexpr ShapeRow kRows[] = {
    {"comment", Shape::Comment}, {"using_directive", Shape::Own, kUsing}, {"namespace_declaration", Shape::Own, kNamespace}, {"class_declaration", Shape::Own, kClass}, {"record_declaration", Shape::Own, kClass}, {"struct_declaration", Shape::Own, kStruct}, {"record_struct_declaration", Shape::Own, kStruct}, {"interface_declaration", Shape::Own, kInterface}, {"enum_declaration", Shape::Own, kEnum},
    {"declaration_list", Shape::Pass}, {"field_declaration", Shape::Own, kField}, {"event_field_declaration", Shape::Own, kEvent}, {"property_declaration", Shape::Own, kProperty}, {"method_declaration", Shape::Own, kMethod}, {"operator_declaration", Shape::Own, kMethod}, {"constructor_declaration", Shape::Own, kConstructor}, {"destructor_declaration", Shape::Own, kDestructor}, {"indexer_declaration", Shape::Own, kIndexer}, {"event_declaration", Shape::Own, kIndexer}, {"delegate_declaration", Shape::Skip},
    {"local_function_statement", Shape::Own, kLocalFunction}, {"global_statement", Shape::Pass}, {"block", Shape::Block}, {"arrow_expression_clause", Shape::Own, kArrowBody}, {"local_declaration_statement", Shape::Own, kLocal}, {"variable_declaration", Shape::Own, kLocal},
    {"if_statement", Shape::If}, {"for_statement", Shape::Loop}, {"foreach_statement", Shape::Own, kForEach}, {"while_statement", Shape::Loop}, {"do_statement", Shape::Loop}, {"switch_statement", Shape::Switch}, {"switch_body", Shape::Pass}, {"switch_section", Shape::Own, kSection}, {"switch_expression", Shape::Switch}, {"switch_expression_arm", Shape::Pass},
    {"try_statement", Shape::Try}, {"catch_clause", Shape::Own, kCatch}, {"catch_declaration", Shape::Skip}, {"catch_filter_clause", Shape::Skip}, {"finally_clause", Shape::Own, kCatch}, {"return_statement", Shape::Return}, {"yield_statement", Shape::Statement}, {"throw_statement", Shape::Throw}, {"throw_expression", Shape::Throw}, {"break_statement", Shape::Jump}, {"continue_statement", Shape::Jump}, {"goto_statement", Shape::Jump}, {"lock_statement", Shape::Own, kLock}, {"using_statement", Shape::Own, kUsingStmt}, {"checked_statement", Shape::Pass}, {"unsafe_statement", Shape::Pass}, {"fixed_statement", Shape::Pass}, {"labeled_statement", Shape::Pass}, {"empty_statement", Shape::Skip},
    {"expression_statement", Shape::Statement}, {"invocation_expression", Shape::Call}, {"argument", Shape::Pass}, {"member_access_expression", Shape::Member}, {"conditional_access_expression", Shape::Own, kConditionalAccess}, {"element_access_expression", Shape::Index}, {"bracketed_argument_list", Shape::Pass}, {"object_creation_expression", Shape::Own, kObjectNew}, {"implicit_object_creation_expression", Shape::Own, kImplicitNew}, {"assignment_expression", Shape::Assign},
    {"binary_expression", Shape::Binary}, {"is_pattern_expression", Shape::Own, kIsPattern}, {"is_expression", Shape::Own, kIsPattern}, {"prefix_unary_expression", Shape::Unary}, {"postfix_unary_expression", Shape::Unary}, {"conditional_expression", Shape::Conditional}, {"lambda_expression", Shape::Lambda}, {"implicit_parameter", Shape::Name}, {"anonymous_method_expression", Shape::Lambda}, {"cast_expression", Shape::Cast}, {"as_expression", Shape::Own, kAsCast}, {"await_expression", Shape::Await}, {"parenthesized_expression", Shape::Paren}, {"checked_expression", Shape::Paren}, {"ref_expression", Shape::Paren},
    {"this", Shape::This}, {"this_expression", Shape::This}, {"base", Shape::This}, {"base_expression", Shape::This}, {"identifier", Shape::Name}, {"generic_name", Shape::Own, kGenericName}, {"qualified_name", Shape::Member}, {"alias_qualified_name", Shape::Skip}, {"null_literal", Shape::Null}, {"boolean_literal", Shape::Boolean}, {"integer_literal", Shape::Number}, {"real_literal", Shape::Number}, {"character_literal", Shape::Text}, {"string_literal", Shape::Text}, {"verbatim_string_literal", Shape::Text}, {"raw_string_literal", Shape::Text}, {"interpolated_string_expression", Shape::Text}, {"interpolation", Shape::Pass}, {"string_content", Shape::Other},
    {"array_creation_expression", Shape::Own, kArrayNew}, {"implicit_array_creation_expression", Shape::Own, kArrayNew}, {"collection_expression", Shape::Own, kArrayNew}, {"initializer_expression", Shape::Collection}, {"typeof_expression", Shape::Own, kTypeOf}, {"default_expression", Shape::Null}, {"tuple_expression", Shape::Collection}, {"attribute_list", Shape::Skip}, {"modifier", Shape::Skip}, {"type_parameter_constraints_clause", Shape::Skip}, {"predefined_type", Shape::Name}, {"nullable_type", Shape::Skip}, {"extern_alias_directive", Shape::Skip}, {"preproc_region", Shape::Skip}, {"preproc_endregion", Shape::Skip}, {"preproc_if", Shape::Pass}, {"preproc_else", Shape::Skip}, {"preproc_elif", Shape::Skip}, {"preproc_define", Shape::Skip}, {"preproc_pragma", Shape::Skip}, {"preproc_nullable", Shape::Skip}, {"bracketed_parameter_list", Shape::Skip}, {"shebang_directive", Shape::Skip},
};

constexpr std::string_view kValueTypes[] = {"bool", "byte", "sbyte", "short", "ushort", "int", "uint", "long", "ulong", "char", "float", "double", "decimal", "string", "String", "void", "nint", "nuint", "DateTime", "TimeSpan", "Guid", "Boolean", "Int32", "Int64", "Double"};

const SharedGrammar& grammar() {
  static const SharedGrammar kGrammar([] {
    GrammarSpec spec;
    spec.bareThis = true;
    spec.grammar = tree_sitter_c_sharp;
    spec.lockCalls = true;
    spec.rows = kRows;
    spec.valueTypes = kValueTypes;
    return spec;
  }());
  return kGrammar;
}

class CsharpLowerer : public SharedLowerer {
 public:
  using SharedLowerer::SharedLowerer;

 private:
  void unit(TSNode root) override {
    NodeId home = 0, top = kNoNode;
    for (TSNode child : named(root)) {
      // 14.3: a file-scoped namespace holds all that follows.
      if (is(child, "file_scoped_namespace_declaration")) {
        TSNode name = field(child, f_.name);
        home = build_.add(0, Kind::Namespace, Role::None, spanOf(root));
        build_.setName(home, scoped(text(name)), begin(name));
        for (TSNode inner : named(child))
          if (!ts_node_eq(inner, name)) visit(inner, home, Role::None);
        continue;
      }
      if (is(child, "global_statement")) {  // 7.1.3: statements of the program's entry point
        if (top == kNoNode) {
          NodeId fn = function(child, home, FunctionForm::Function, "main", begin(child), kStatic | kDefinition);
          top = add(fn, Kind::Block, Role::Body, root);
        }
        visit(child, top, Role::None);
        continue;
      }
      visit(child, home, Role::None);
    }
  }

  bool hasModifier(TSNode node, std::string_view word) const {
    NodeList kids = named(node);
    return std::any_of(kids.begin(), kids.end(), [&](TSNode kid) { return is(kid, "modifier") && text(kid) == word; });
  }

  uint32_t modifiersOf(TSNode node, uint32_t byDefault) {
    uint32_t out = 0;
    for (TSNode child : named(node)) {
      if (!is(child, "modifier")) continue;
      std::string_view word = text(child);
      if (word == "static") out |= kStatic;
      else if (word == "readonly") out |= kConst;
      else if (word == "const") out |= kConst | kConstant | kStatic;
      else if (word == "public" || word == "internal") out |= kPublic;
      else if (word == "private") out |= kPrivate;
      else if (word == "protected") out |= kProtected;
      else if (word == "abstract") out |= kAbstract;
      else if (word == "sealed") out |= kFinal;
      else if (word == "virtual") out |= kVirtual;
      else if (word == "override") out |= kOverride;
      else if (word == "volatile") out |= kVolatile;
      else if (word == "extern") out |= kExtern;
    }
    for (TSNode child : named(node))
      if (is(child, "attribute_list") && (text(child).find("ThreadStatic") != std::string_view::npos)) out |= kThreadLocal;
    if (!(out & (kPublic | kPrivate | kProtected))) out |= byDefault;
    if (out & kPrivate) out &= ~uint32_t{kPublic};
    return out & ~uint32_t{kExtern};
  }

  void variables(TSNode declaration, NodeId parent, Role role, uint32_t bits) {
    TSNode written = field(declaration, f_.type);
    bool inferred = text(written) == "var";
    for (TSNode child : named(declaration)) {
      if (!is(child, "variable_declarator")) continue;
      TSNode name = field(child, f_.name);
      if (isNull(name)) name = firstNamed(child);
      TSNode value{};
      for (TSNode part : named(child))
        if (begin(part) > begin(name) && !is(part, "bracketed_argument_list") && !is(part, "comment")) value = part;
      if (is(value, "equals_value_clause")) value = firstNamed(value);
      writtenType_ = written;
      variable(child, parent, role, name, bits, inferred ? TSNode{} : written, value);
    }
  }

  NodeId type(TSNode node, NodeId parent, TypeForm form) {
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(form);
    build_[id].modifiers = modifiersOf(node, kPublic) | kDefinition;
    TSNode name = field(node, f_.name);
    build_.setName(id, text(name), begin(name));
    annotate(node, id);
    if (hasToken(node, "partial")) build_[id].modifiers |= kPart;
    if (TSNode list = childOfType(node, "type_parameter_list"); !isNull(list))
      for (TSNode parameter : named(list)) {
        NodeId ref = add(id, Kind::TypeRef, Role::TypeParameter, parameter);
        TSNode word = field(parameter, f_.name);
        build_.setName(ref, text(isNull(word) ? parameter : word), begin(parameter));
      }
    if (TSNode list = childOfType(node, "base_list"); !isNull(list))
      for (TSNode base : named(list)) {
        if (is(base, "argument_list")) continue;
        TSNode inner = is(base, "primary_constructor_base_type") ? firstNamed(base) : base;
        if (NodeId ref = typeRef(inner, id, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
      }
    std::string outer = currentClass_;
    currentClass_ = text(name);
    bool outerInterface = inInterface_;
    inInterface_ = form == TypeForm::Interface;
    // A primary constructor's parameters are there for the whole body.
    if (TSNode list = childOfType(node, "parameter_list"); !isNull(list)) {
      NodeId constructor = function(list, id, FunctionForm::Constructor, text(name), begin(name), kPublic | kDefinition);
      parameters(list, constructor);
      for (TSNode one : named(list))
        if (is(one, "parameter")) variable(one, id, Role::Member, field(one, f_.name), kPrivate, field(one, f_.type), {});
    }
    TSNode inner = field(node, f_.body);
    if (!isNull(inner) && form != TypeForm::Enum) visitChildren(inner, id);
    inInterface_ = outerInterface;
    currentClass_ = outer;
    return id;
  }

  void functionBody(TSNode node, NodeId id) {
    TSNode inner = field(node, f_.body);
    if (isNull(inner)) inner = childOfType(node, "arrow_expression_clause");
    if (isNull(inner)) return;
    build_[id].modifiers |= kDefinition;
    if (is(inner, "arrow_expression_clause")) inner = firstNamed(inner);
    body(inner, id);
  }

  void property(TSNode node, NodeId parent) {
    uint32_t bits = modifiersOf(node, inInterface_ ? kPublic : kPrivate);
    TSNode name = field(node, f_.name), written = field(node, f_.type), accessors = field(node, f_.accessors), value = field(node, f_.value);
    bool computed = is(value, "arrow_expression_clause"), hasSet = false;
    if (!isNull(accessors))
      for (TSNode one : named(accessors)) {
        computed |= !isNull(field(one, f_.body));
        hasSet |= text(field(one, f_.name)) == "set" || text(field(one, f_.name)) == "init";
      }
    if (!computed) {  // 15.7.4: the compiler keeps the value
      bool privateSet = !isNull(accessors) && text(accessors).find("private set") != std::string_view::npos;
      NodeId id = variable(node, parent, Role::Member, name, bits | (hasSet ? 0u : uint32_t{kConst}), written, is(value, "equals_value_clause") ? firstNamed(value) : value);
      if (privateSet && file_[id].has(kStatic)) build_[id].modifiers |= kProtected;
      return;
    }
    if (is(value, "arrow_expression_clause")) {
      NodeId id = function(node, parent, FunctionForm::Getter, text(name), begin(name), bits | kDefinition);
      typeRef(written, id, Role::Type);
      body(firstNamed(value), id);
      return;
    }
    for (TSNode one : named(accessors)) {
      if (isNull(field(one, f_.body))) continue;
      bool getter = text(field(one, f_.name)) == "get";
      NodeId id = function(one, parent, getter ? FunctionForm::Getter : FunctionForm::Setter, getter ? std::string(text(name)) : "set " + std::string(text(name)), begin(name), bits | kDefinition);
      if (getter) typeRef(written, id, Role::Type);
      functionBody(one, id);
    }
  }

  // 15.9, 15.8: what runs when an element is read or set, a handler added or removed.
  void lowerIndexer(TSNode node, NodeId parent) {
    uint32_t bits = modifiersOf(node, inInterface_ ? kPublic : kPrivate);
    TSNode name = field(node, f_.name), accessors = field(node, f_.accessors), value = field(node, f_.value);
    std::string word = isNull(name) ? "this[]" : std::string(text(name));
    uint32_t at = begin(isNull(name) ? node : name);
    if (is(value, "arrow_expression_clause")) {
      NodeId id = function(node, parent, FunctionForm::Function, "get " + word, at, bits | kDefinition);
      parameters(field(node, f_.parameters), id);
      return body(firstNamed(value), id);
    }
    for (TSNode one : isNull(accessors) ? NodeList{} : named(accessors)) {
      if (isNull(field(one, f_.body))) continue;
      NodeId id = function(one, parent, FunctionForm::Function, std::string(text(field(one, f_.name))) + " " + word, at, bits | kDefinition);
      parameters(field(node, f_.parameters), id);
      functionBody(one, id);
    }
  }

  void parameter(TSNode node, NodeId fn) override {
    NodeId id = add(fn, Kind::Parameter, Role::Parameter, node);
    TSNode name = field(node, f_.name);
    if (isNull(name)) name = node;
    build_.setName(id, text(name), begin(name));
    typeRef(field(node, f_.type), id, Role::Type);
    if (hasToken(node, "params")) build_[id].modifiers |= kPack;
    bool after = false;
    for (TSNode part : all(node)) {
      if (after && ts_node_is_named(part)) visit(is(part, "equals_value_clause") ? firstNamed(part) : part, id, Role::Initialiser);
      after |= text(part) == "=";
      if (is(part, "equals_value_clause")) visit(firstNamed(part), id, Role::Initialiser);
    }
  }

  void own(TSNode node, uint8_t tag, NodeId parent, Role role) override {
    switch (tag) {
      case kUsing: lowerUsing(node, parent); break;
      case kNamespace: {
        TSNode name = field(node, f_.name);
        NodeId id = add(parent, Kind::Namespace, Role::None, node);
        build_.setName(id, scoped(text(name)), begin(name));
        visitChildren(field(node, f_.body), id);
        break;
      }
      case kClass: type(node, parent, TypeForm::Class); break;
      case kStruct: type(node, parent, TypeForm::Struct); break;
      case kInterface: type(node, parent, TypeForm::Interface); break;
      case kEnum: type(node, parent, TypeForm::Enum); break;
      case kField: case kEvent: {
        TSNode declaration = childOfType(node, "variable_declaration");
        // Outside of any type there are none: the text around it was not understood.
        // A field that is internal to its assembly is no part of what others are offered.
        uint32_t bits = modifiersOf(node, kPrivate);
        if (hasModifier(node, "internal")) bits &= ~uint32_t{kPublic};
        if (!isNull(declaration) && file_[parent].kind == Kind::Type) variables(declaration, parent, Role::Member, bits);
        break;
      }
      case kProperty: property(node, parent); break;
      case kMethod: lowerMethod(node, parent); break;
      case kIndexer: lowerIndexer(node, parent); break;
      case kConstructor: lowerConstructor(node, parent); break;
      case kDestructor: {
        NodeId id = function(node, parent, FunctionForm::Destructor, "~" + currentClass_, begin(node), kPublic);
        functionBody(node, id);
        break;
      }
      case kLocalFunction: lowerLocalFunction(node, parent); break;
      case kLocal: lowerLocal(node, parent); break;
      case kLock: lowerLock(node, parent, role); break;
      case kUsingStmt: {
        NodeId id = add(parent, Kind::Block, role, node);
        for (TSNode child : named(node)) visit(child, id, Role::None);
        break;
      }
      case kForEach: lowerForEach(node, parent, role); break;
      case kSection: {
        NodeId id = add(parent, Kind::Block, role, node);
        statements(node, id);
        break;
      }
      case kCatch: {
        TSNode inner = field(node, f_.body);
        if (isNull(inner)) inner = childOfType(node, "block");
        TSNode caught = childOfType(node, "catch_declaration");
        NodeId id = handler(node, parent, role, isNull(caught) ? caught : field(caught, f_.name), isNull(caught) ? caught : field(caught, f_.type), inner);
        if (TSNode when = childOfType(node, "catch_filter_clause"); !isNull(when)) visitChildren(when, id);
        break;
      }
      case kObjectNew: case kImplicitNew: lowerObjectNew(node, tag, parent, role); break;
      case kArrayNew: {
        NodeId id = add(parent, Kind::Collection, role, node);
        for (TSNode child : named(node))
          if (is(child, "initializer_expression")) visitChildren(child, id, Role::Value);
        break;
      }
      case kIsPattern: lowerIsPattern(node, parent, role); break;
      case kConditionalAccess: lowerConditionalAccess(node, parent, role); break;
      case kTypeOf: {
        TSNode name = field(node, f_.type);
        if (isNull(name)) name = firstNamed(node);
        // typeof(Gate).Name asks the class's own object, not one of the class.
        if (role == Role::Receiver) parent = add(parent, Kind::Other, role, node), role = Role::Operand;
        NodeId id = add(parent, Kind::Name, role, node);
        build_.setName(id, scoped(text(name)), begin(node));
        break;
      }
      case kAsCast: {
        NodeId id = add(parent, Kind::Cast, role, node);
        typeRef(field(node, f_.right), id, Role::Type);
        visit(field(node, f_.left), id, Role::Operand);
        break;
      }
      case kGenericName: lowerGenericName(node, parent, role); break;
      case kArrowBody: body(firstNamed(node), parent); break;
      default: break;
    }
  }

  void lowerUsing(TSNode node, NodeId parent) {
    TSNode name{};
    for (TSNode child : named(node))
      if (is(child, "qualified_name") || is(child, "identifier")) name = child;
    if (isNull(name)) return;
    NodeId import = add(parent, Kind::Import, Role::None, node);
    build_.setName(import, scoped(text(name)), begin(name));
    TSNode alias = field(node, f_.name);
    NodeId id = add(parent, Kind::Using, Role::None, node);
    if (!isNull(alias) && !ts_node_eq(alias, name)) {
      build_.setName(id, text(alias), begin(alias));
      NodeId ref = add(id, Kind::TypeRef, Role::Type, name);
      build_.setName(ref, scoped(text(name)), begin(name));
    } else {
      build_.setName(id, scoped(text(name)), begin(name));
      build_[id].modifiers |= kWholeScope;
    }
  }

  void lowerMethod(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name);
    uint32_t bits = modifiersOf(node, inInterface_ ? kPublic : kPrivate);
    NodeId id = function(node, parent, FunctionForm::Function, isNull(name) ? std::string_view("operator") : text(name), begin(isNull(name) ? node : name), bits & ~uint32_t{kConst});
    if (inInterface_) build_[id].modifiers |= kAbstract;
    if (TSNode list = childOfType(node, "type_parameter_list"); !isNull(list))
      for (TSNode one : named(list)) {
        NodeId ref = add(id, Kind::TypeRef, Role::TypeParameter, one);
        build_.setName(ref, text(one), begin(one));
      }
    TSNode written = firstField(node, f_.returns, f_.type);
    typeRef(written, id, Role::Type);
    parameters(field(node, f_.parameters), id);
    functionBody(node, id);
  }

  void lowerConstructor(TSNode node, NodeId parent) {
    uint32_t bits = modifiersOf(node, kPrivate);
    TSNode name = field(node, f_.name);
    // 15.12: a static constructor is the class's own initialiser.
    bool isStatic = bits & kStatic;
    NodeId id = function(node, parent, isStatic ? FunctionForm::Initialiser : FunctionForm::Constructor, isStatic ? std::string_view("static constructor") : text(name), begin(name), bits);
    parameters(field(node, f_.parameters), id);
    if (TSNode chained = childOfType(node, "constructor_initializer"); !isNull(chained)) {
      NodeId init = add(id, Kind::FieldInit, Role::FieldInit, chained);
      build_.setName(init, hasToken(chained, "this") ? std::string_view(currentClass_) : std::string_view("base"), begin(chained));
      arguments(childOfType(chained, "argument_list"), init);
    }
    functionBody(node, id);
  }

  void lowerLocalFunction(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name);
    NodeId id = add(parent, Kind::Variable, Role::None, node);
    build_.setName(id, text(name), begin(name));
    build_[id].modifiers = kDefinition | kConst;
    NodeId lambda = add(id, Kind::Lambda, Role::Initialiser, node);
    parameters(field(node, f_.parameters), lambda);
    TSNode inner = field(node, f_.body);
    if (is(inner, "arrow_expression_clause")) inner = firstNamed(inner);
    body(inner, lambda);
  }

  void lowerLocal(TSNode node, NodeId parent) {
    TSNode declaration = is(node, "variable_declaration") ? node : childOfType(node, "variable_declaration");
    uint32_t bits = 0;
    for (TSNode child : named(node))
      if (is(child, "modifier") && text(child) == "const") bits |= kConst | kConstant;
    if (!isNull(declaration)) variables(declaration, parent, Role::None, bits);
  }

  void lowerLock(TSNode node, NodeId parent, Role role) {
    TSNode lock{}, inner{};
    for (TSNode child : named(node)) {
      if (is(child, "comment")) continue;
      if (isNull(lock)) lock = child;
      else inner = child;
    }
    body(inner, guardOf(node, parent, role, lock, {}));  // 13.13: any statement, not only a block
  }

  void lowerForEach(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Loop, role, node);
    TSNode left = field(node, f_.left);
    if (is(left, "identifier")) {
      NodeId item = add(id, Kind::Variable, Role::None, left);
      build_.setName(item, text(left), begin(left));
      if (text(field(node, f_.type)) != "var") typeRef(field(node, f_.type), item, Role::Type);
    }
    visit(field(node, f_.right), id, Role::Operand);
    visit(field(node, f_.body), id, Role::Body);
  }

  void lowerObjectNew(TSNode node, uint8_t tag, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Create, role, node);
    build_[id].detail = static_cast<uint8_t>(CreateForm::Heap);
    TSNode written = tag == kObjectNew ? field(node, f_.type) : writtenType_;
    if (NodeId ref = typeRef(written, id, Role::Type); ref != kNoNode) build_[ref].modifiers &= ~kManaged;
    TSNode list = field(node, f_.arguments);
    if (isNull(list)) list = childOfType(node, "argument_list");
    arguments(list, id);
    if (TSNode init = field(node, f_.initializer); !isNull(init))
      for (TSNode one : named(init)) {
        TSNode value = is(one, "assignment_expression") ? field(one, f_.right) : one;
        visit(value, id, Role::Value);
      }
  }

  void lowerIsPattern(TSNode node, NodeId parent, Role role) {
    TSNode pattern = field(node, f_.pattern);
    if (isNull(pattern)) pattern = field(node, f_.right);
    TSNode operand = firstField(node, f_.expression, f_.left);
    std::string_view words = trim(text(pattern));
    if (words == "null" || words == "not null" || words == "{ }" || words == "{}") {
      nullTest(node, parent, role, words == "null" ? NullTestForm::IsNull : NullTestForm::IsNotNull, operand);
      return;
    }
    NodeId id = add(parent, Kind::Compare, role, node);
    visit(operand, id, Role::Operand);
  }

  void lowerConditionalAccess(TSNode node, NodeId parent, Role role) {
    // a?.b and a?.b()
    TSNode object = field(node, f_.condition), rest{};
    for (TSNode child : named(node))
      if (isNull(object) || !ts_node_eq(child, object)) rest = child;
    if (isNull(object)) object = firstNamed(node);
    bool call = is(rest, "invocation_expression");
    TSNode binding = call ? field(rest, f_.function) : rest;
    NodeId at = parent;
    Role in = role;
    if (call) {
      at = add(parent, Kind::Call, role, node);
      in = Role::Callee;
    }
    NodeId member = add(at, Kind::Member, in, node);
    visit(object, member, Role::Receiver);
    TSNode name = is(binding, "member_binding_expression") ? field(binding, f_.name) : binding;
    if (!isNull(name)) build_.setName(member, text(name).substr(0, text(name).find('<')), begin(name));
    if (call) arguments(field(rest, f_.arguments), at);
  }

  void lowerGenericName(TSNode node, NodeId parent, Role role) {
    TSNode name = firstNamed(node);
    NodeId id = add(parent, Kind::Name, role, node);
    build_.setName(id, text(name), begin(name));
    if (TSNode list = childOfType(node, "type_argument_list"); !isNull(list))
      for (TSNode one : named(list)) typeRef(one, id, Role::TypeArgument);
  }

  // receiver.Name<A, B>
  bool ownMember(TSNode node, NodeId parent, Role role) override {
    TSNode name = field(node, f_.name);
    if (!is(name, "generic_name")) return false;
    NodeId id = add(parent, Kind::Member, role, node);
    visit(firstField(node, f_.expression, f_.object), id, Role::Receiver);
    TSNode word = firstNamed(name);
    build_.setName(id, text(word), begin(word));
    if (TSNode list = childOfType(name, "type_argument_list"); !isNull(list))
      for (TSNode one : named(list)) typeRef(one, id, Role::TypeArgument);
    return true;
  }

  std::string currentClass_;
  bool inInterface_ = false;
  TSNode writtenType_{};  // of the declaration around a `new(…)` without a type
};

}  // namespace

Language csharpLanguage() {
  static constexpr std::string_view kExtensions[] = {".cs"};
  Language language;
  language.id = "csharp";
  language.name = "C#";
  language.extensions = kExtensions;
  language.separator = ".";
  language.dotted = true;
  language.importsInFileOnly = true;
  language.marksConstants = true;
  language.guarantees = &csharpGuarantees();
  language.testImports = {"NUnit.Framework", "Xunit", "Microsoft.VisualStudio.TestTools"};
  language.facing = &csharpFacing();
  language.settling = &csharpSettling();
  language.announcing = &csharpAnnouncing();
  language.mending = &csharpMending();
  language.sound = &csharpSound();
  language.handing = &csharpHanding();
  language.lower = [](std::string_view text, const Language::TreeLore*, LoweredFile& out) {
    lowerBranches(text, true, out, [](std::string& prepared, LoweredFile& into) { CsharpLowerer(grammar(), prepared, into).run(rephraseCsharp(prepared).text()); });
  };
  language.parseOnly = [](std::string_view text) { parseOnlyWith(grammar(), text); };
  language.grammar = tree_sitter_c_sharp;
  language.forGrammar = [](std::string_view text) { return std::string(rephraseCsharp(text).text()); };
  language.writer = csharpWriter;
  language.harness = csharpHarness;
  return language;
}

}  // namespace elmcart
