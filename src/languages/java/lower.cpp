// Lowers a Java file. Chapters are of the Java Language Specification, Java SE 17.
#include "base/text.h"
#include "languages/comments.h"
#include "languages/java/java.h"
#include "languages/shared/lowerer.h"

extern "C" const TSLanguage* tree_sitter_java(void);

namespace elmcart {
namespace {

enum Own : uint8_t { kPackage, kImport, kClass, kInterface, kEnum, kRecord, kField, kMethod, kConstructor, kInitialiser, kLocal, kSynchronized, kInvocation, kConstructorCall, kCatch, kResources, kMethodReference, kClassLiteral, kArrayNew, kAssert, kInstanceOf };

constexpr ShapeRow kRows[] = {
    {"line_comment", Shape::Comment}, {"block_comment", Shape::Comment}, {"package_declaration", Shape::Own, kPackage}, {"import_declaration", Shape::Own, kImport},
    {"class_declaration", Shape::Own, kClass}, {"interface_declaration", Shape::Own, kInterface}, {"annotation_type_declaration", Shape::Own, kInterface},
    {"enum_declaration", Shape::Own, kEnum}, {"record_declaration", Shape::Own, kRecord}, {"field_declaration", Shape::Own, kField}, {"constant_declaration", Shape::Own, kField},
    {"method_declaration", Shape::Own, kMethod}, {"constructor_declaration", Shape::Own, kConstructor}, {"compact_constructor_declaration", Shape::Own, kConstructor},
    {"static_initializer", Shape::Own, kInitialiser}, {"block", Shape::Block}, {"constructor_body", Shape::Block}, {"local_variable_declaration", Shape::Own, kLocal},
    {"if_statement", Shape::If}, {"while_statement", Shape::Loop}, {"do_statement", Shape::Loop}, {"for_statement", Shape::Loop}, {"enhanced_for_statement", Shape::Loop},
    {"switch_expression", Shape::Switch}, {"switch_statement", Shape::Switch}, {"switch_block", Shape::Pass}, {"switch_block_statement_group", Shape::Block}, {"switch_rule", Shape::Block}, {"switch_label", Shape::Pass},
    {"try_statement", Shape::Try}, {"try_with_resources_statement", Shape::Own, kResources}, {"catch_clause", Shape::Own, kCatch}, {"finally_clause", Shape::Pass},
    {"return_statement", Shape::Return}, {"yield_statement", Shape::Statement}, {"throw_statement", Shape::Throw}, {"break_statement", Shape::Jump}, {"continue_statement", Shape::Jump},
    {"expression_statement", Shape::Statement}, {"labeled_statement", Shape::Pass}, {"assert_statement", Shape::Own, kAssert}, {"synchronized_statement", Shape::Own, kSynchronized},
    {"identifier", Shape::Name}, {"field_access", Shape::Member}, {"array_access", Shape::Index}, {"method_invocation", Shape::Own, kInvocation},
    {"object_creation_expression", Shape::New}, {"array_creation_expression", Shape::Own, kArrayNew}, {"array_initializer", Shape::Collection}, {"explicit_constructor_invocation", Shape::Own, kConstructorCall},
    {"assignment_expression", Shape::Assign}, {"update_expression", Shape::Update}, {"binary_expression", Shape::Binary}, {"instanceof_expression", Shape::Own, kInstanceOf}, {"unary_expression", Shape::Unary},
    {"ternary_expression", Shape::Conditional}, {"lambda_expression", Shape::Lambda}, {"method_reference", Shape::Own, kMethodReference}, {"cast_expression", Shape::Cast},
    {"parenthesized_expression", Shape::Paren}, {"condition", Shape::Paren}, {"null_literal", Shape::Null}, {"true", Shape::Boolean}, {"false", Shape::Boolean},
    {"string_literal", Shape::Text}, {"string_interpolation", Shape::Pass}, {"character_literal", Shape::Text}, {"decimal_integer_literal", Shape::Number}, {"hex_integer_literal", Shape::Number},
    {"octal_integer_literal", Shape::Number}, {"binary_integer_literal", Shape::Number}, {"decimal_floating_point_literal", Shape::Number}, {"hex_floating_point_literal", Shape::Number},
    {"this", Shape::This}, {"super", Shape::This}, {"class_literal", Shape::Own, kClassLiteral}, {"modifiers", Shape::Skip}, {"program", Shape::Pass}, {"interface_body", Shape::Pass}, {"class_body", Shape::Pass},
    {"enum_body_declarations", Shape::Pass}, {"annotation_type_body", Shape::Pass}, {"module_declaration", Shape::Skip}, {"super_interfaces", Shape::Skip}, {"type_parameters", Shape::Skip}, {"dimensions", Shape::Skip},
    {"template_expression", Shape::Pass}, {"marker_annotation", Shape::Skip}, {"annotation", Shape::Skip}, {"finally", Shape::Skip}, {"receiver_parameter", Shape::Skip},
};

constexpr std::string_view kValueTypes[] = {"boolean", "byte", "short", "char", "int", "long", "float", "double", "void", "String", "Boolean", "Byte", "Short", "Character", "Integer", "Long", "Float", "Double", "BigInteger", "BigDecimal", "java.lang.String"};

const SharedGrammar& grammar() {
  static const SharedGrammar kGrammar([] {
    GrammarSpec spec;
    spec.grammar = tree_sitter_java;
    spec.lockCalls = true;
    spec.rows = kRows;
    spec.valueTypes = kValueTypes;
    return spec;
  }());
  return kGrammar;
}

class JavaLowerer : public SharedLowerer {
 public:
  using SharedLowerer::SharedLowerer;

 private:
  struct Modifiers {
    uint32_t bits = 0;
    bool synchronized = false;
  };

  // Pier.Companion: what Kotlin's class itself has (Kotlin, Calling Kotlin from Java).
  bool ownMember(TSNode node, NodeId parent, Role role) override {
    if (text(field(node, f_.field)) != "Companion") return false;
    visit(field(node, f_.object), parent, role);
    return true;
  }

  void unit(TSNode root) override {
    // JLS 7.4: the declarations of a file belong to its package.
    NodeId home = 0;
    for (TSNode child : named(root)) {
      if (!is(child, "package_declaration")) continue;
      for (TSNode name : named(child)) {
        if (!is(name, "scoped_identifier") && !is(name, "identifier")) continue;
        home = build_.add(0, Kind::Namespace, Role::None, spanOf(root));
        build_.setName(home, scoped(text(name)), begin(name));
      }
    }
    visitChildren(root, home);
  }

  Modifiers modifiersOf(TSNode node, bool inInterface = false) {
    Modifiers out;
    TSNode list = ts_node_named_child(node, 0);  // they stand first
    if (!is(list, "modifiers")) {
      if (inInterface) out.bits |= kPublic;
      return out;
    }
    for (TSNode child : all(list)) {
      std::string_view word = text(child);
      if (word == "static") out.bits |= kStatic;
      else if (word == "final") out.bits |= kConst | kFinal;
      else if (word == "public") out.bits |= kPublic;
      else if (word == "private") out.bits |= kPrivate;
      else if (word == "protected") out.bits |= kProtected;
      else if (word == "abstract") out.bits |= kAbstract;
      else if (word == "volatile") out.bits |= kVolatile;
      else if (word == "synchronized") out.synchronized = true;
      else if (word == "@Override") out.bits |= kOverride;
    }
    return out;
  }

  NodeId type(TSNode node, NodeId parent, TypeForm form, uint32_t modifiers) {
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(form);
    build_[id].modifiers = modifiers | kDefinition;
    TSNode name = field(node, f_.name);
    build_.setName(id, text(name), begin(name));
    annotate(node, id);
    typeParameters(node, id);
    bases(field(node, f_.superclass), id);
    for (TSNode child : named(node))
      if (is(child, "super_interfaces") || is(child, "extends_interfaces")) bases(child, id);
    return id;
  }

  // JLS 15.9.5: a class without a name, derived from the one that is named, stands
  // inside its creation. It is called after that one, numbered in its file.
  void createBody(TSNode node, NodeId create) override {
    TSNode inner = childOfType(node, "class_body"), base = field(node, f_.type);
    if (isNull(inner)) return;
    std::string_view word = text(base).substr(0, text(base).find('<'));
    std::string name = std::string(word.substr(word.rfind('.') + 1)) + "$" + std::to_string(++anonymous_);
    NodeId id = add(create, Kind::Type, Role::None, inner);
    build_[id].detail = static_cast<uint8_t>(TypeForm::Class);
    build_[id].modifiers = kDefinition | kPrivate | kFinal;
    build_.setName(id, name, begin(inner));
    if (NodeId ref = typeRef(base, id, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
    std::string outerClass = currentClass_;
    bool outerInterface = inInterface_, outerEnum = inEnum_;
    currentClass_ = name;
    inInterface_ = inEnum_ = false;
    members(inner, id);
    currentClass_ = outerClass;
    inInterface_ = outerInterface;
    inEnum_ = outerEnum;
  }

  void members(TSNode inner, NodeId type) {
    for (TSNode child : named(inner)) {
      if (!is(child, "block")) {
        visit(child, type, Role::None);
        continue;
      }
      // JLS 8.6: runs in each constructor, before its body.
      NodeId id = function(child, type, FunctionForm::Initialiser, "initialiser", begin(child), kDefinition | kPrivate);
      visit(child, id, Role::Body);
    }
  }

  void bases(TSNode node, NodeId id) {
    if (isNull(node)) return;
    for (TSNode child : named(node)) {
      if (is(child, "type_list")) bases(child, id);
      else if (NodeId ref = typeRef(child, id, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
    }
  }

  void fields(TSNode node, NodeId parent, uint32_t bits) {
    TSNode written = field(node, f_.type);
    for (TSNode child : named(node)) {
      if (!is(child, "variable_declarator")) continue;
      bool inferred = text(written) == "var";
      NodeId id = variable(child, parent, Role::Member, field(child, f_.name), bits, inferred ? TSNode{} : written, field(child, f_.value));
      if (!isNull(childOfType(child, "dimensions")))
        if (NodeId ref = file_.child(id, Role::Type); ref != kNoNode) build_[ref].modifiers |= kArray;
    }
  }

  void functionBody(TSNode node, NodeId id, const Modifiers& modifiers) {
    TSNode inner = field(node, f_.body);
    if (isNull(inner)) return;
    build_[id].modifiers |= kDefinition;
    if (!modifiers.synchronized) return visit(inner, id, Role::Body);
    // JLS 8.4.3.6: the lock of the class for a static method, else of the object.
    NodeId block = add(id, Kind::Block, Role::Body, inner);
    NodeId guard = add(block, Kind::Guard, Role::None, inner);
    if (modifiers.bits & kStatic) {
      NodeId lock = add(guard, Kind::Name, Role::Lock, field(node, f_.name));
      build_.setName(lock, currentClass_, begin(node));
    } else {
      add(guard, Kind::This, Role::Lock, field(node, f_.name));
    }
    visit(inner, guard, Role::Body);
  }

  void typeParameters(TSNode node, NodeId id) {
    TSNode list = field(node, f_.typeParameters);
    if (isNull(list)) return;
    for (TSNode parameter : named(list)) {
      TSNode name = firstNamed(parameter);
      NodeId ref = add(id, Kind::TypeRef, Role::TypeParameter, parameter);
      build_.setName(ref, text(isNull(name) ? parameter : name), begin(parameter));
    }
  }

  void own(TSNode node, uint8_t tag, NodeId parent, Role role) override {
    switch (tag) {
      case kPackage: break;
      case kImport: lowerImport(node, parent); break;
      case kClass: case kInterface: case kRecord: case kEnum: lowerClass(node, tag, parent); break;
      case kField: {
        uint32_t bits = modifiersOf(node).bits;
        if (inInterface_) bits |= kPublic | kStatic | kConst;  // JLS 9.3
        fields(node, parent, bits);
        break;
      }
      case kLocal: fields(node, parent, modifiersOf(node).bits); break;
      case kMethod: lowerMethod(node, parent); break;
      case kConstructor: lowerConstructor(node, parent); break;
      case kInitialiser: {
        NodeId id = function(node, parent, FunctionForm::Initialiser, "static initialiser", begin(node), kStatic | kDefinition | kPrivate);
        visit(firstNamed(node), id, Role::Body);
        break;
      }
      case kSynchronized: {
        TSNode lock = childOfType(node, "parenthesized_expression");
        guardOf(node, parent, role, lock, field(node, f_.body));
        break;
      }
      case kInvocation: lowerInvocation(node, parent, role); break;
      case kConstructorCall: {
        NodeId id = add(parent, Kind::FieldInit, Role::FieldInit, node);
        TSNode which = field(node, f_.constructor);
        build_.setName(id, text(which) == "this" ? std::string_view(currentClass_) : std::string_view("super"), begin(node));
        arguments(field(node, f_.arguments), id);
        break;
      }
      case kCatch: {
        TSNode caught = childOfType(node, "catch_formal_parameter"), types = childOfType(caught, "catch_type");
        handler(node, parent, role, childOfType(caught, "identifier"), firstNamed(types), field(node, f_.body));
        break;
      }
      case kResources: lowerResources(node, parent, role); break;
      case kMethodReference: {
        NodeList kids = named(node);
        NodeId id = add(parent, Kind::Member, role, node);
        if (!kids.empty()) visit(kids.front(), id, Role::Receiver);
        if (kids.size() > 1) build_.setName(id, text(kids.back()), begin(kids.back()));
        break;
      }
      case kClassLiteral: {
        TSNode first = firstNamed(node);
        // Gate.class.getName() asks the class's own object, not one of the class.
        if (role == Role::Receiver) parent = add(parent, Kind::Other, role, node), role = Role::Operand;
        NodeId id = add(parent, Kind::Name, role, node);
        build_.setName(id, scoped(text(first)), begin(first));
        break;
      }
      case kArrayNew: lowerArrayNew(node, parent, role); break;
      case kAssert: {
        NodeId id = add(parent, Kind::Call, role, node);
        NodeId name = add(id, Kind::Name, Role::Callee, node);
        build_.setName(name, "assert", begin(node));
        visitChildren(node, id, Role::Argument);
        break;
      }
      case kInstanceOf: {
        NodeId id = add(parent, Kind::Compare, role, node);
        visit(field(node, f_.left), id, Role::Operand);
        TSNode name = field(node, f_.name);
        if (!isNull(name)) variable(node, id, Role::None, name, kConst, field(node, f_.right), {});
        break;
      }
      default: break;
    }
  }

  void lowerImport(TSNode node, NodeId parent) {
    bool all = !isNull(childOfType(node, "asterisk"));
    TSNode name = childOfType(node, "scoped_identifier");
    if (isNull(name)) name = childOfType(node, "identifier");
    if (isNull(name)) return;
    NodeId import = add(parent, Kind::Import, Role::None, node);
    build_.setName(import, scoped(text(name)), begin(name));
    NodeId id = add(parent, Kind::Using, Role::None, node);
    build_.setName(id, scoped(text(name)), begin(name));
    if (all) build_[id].modifiers |= kWholeScope;
  }

  void lowerClass(TSNode node, uint8_t tag, NodeId parent) {
    Modifiers modifiers = modifiersOf(node, inInterface_);
    bool isEnum = tag == kEnum, isInterface = tag == kInterface;
    NodeId id = type(node, parent, isEnum ? TypeForm::Enum : isInterface ? TypeForm::Interface : TypeForm::Class, modifiers.bits);
    std::string outerClass = currentClass_;
    bool outerInterface = inInterface_, outerEnum = inEnum_;
    currentClass_ = text(field(node, f_.name));
    inInterface_ = isInterface;
    inEnum_ = isEnum;
    if (tag == kRecord) {
      // JLS 8.10.3: a private final field for each component.
      TSNode list = field(node, f_.parameters);
      if (!isNull(list))
        for (TSNode component : named(list))
          if (is(component, "formal_parameter")) variable(component, id, Role::Member, field(component, f_.name), kPrivate | kConst, field(component, f_.type), {});
    }
    TSNode inner = field(node, f_.body);
    if (isEnum) enumerators(inner, id);
    else if (!isNull(inner)) members(inner, id);
    currentClass_ = outerClass;
    inInterface_ = outerInterface;
    inEnum_ = outerEnum;
  }

  void lowerMethod(TSNode node, NodeId parent) {
    Modifiers modifiers = modifiersOf(node, inInterface_);
    TSNode name = field(node, f_.name);
    NodeId id = function(node, parent, FunctionForm::Function, text(name), begin(name), modifiers.bits & ~uint32_t{kConst});
    if (inInterface_ && isNull(field(node, f_.body))) build_[id].modifiers |= kAbstract;
    if (!(modifiers.bits & (kStatic | kPrivate | kFinal))) build_[id].modifiers |= kVirtual;
    typeParameters(node, id);
    typeRef(field(node, f_.type), id, Role::Type);
    parameters(field(node, f_.parameters), id);
    functionBody(node, id, modifiers);
  }

  void lowerConstructor(TSNode node, NodeId parent) {
    Modifiers modifiers = modifiersOf(node);
    TSNode name = field(node, f_.name);
    // JLS 8.9.2: an enum's constructor is private.
    NodeId id = function(node, parent, FunctionForm::Constructor, text(name), begin(name), (modifiers.bits & ~uint32_t{kConst}) | (inEnum_ ? kPrivate : 0u));
    parameters(field(node, f_.parameters), id);
    functionBody(node, id, modifiers);
  }

  void lowerInvocation(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Call, role, node);
    TSNode object = field(node, f_.object), name = field(node, f_.name);
    if (isNull(object)) {
      addName(id, Role::Callee, name);
    } else {
      NodeId member = add(id, Kind::Member, Role::Callee, node);
      visit(object, member, Role::Receiver);
      build_.setName(member, text(name), begin(name));
      build_[member].span = {begin(node), ts_node_end_byte(name)};
    }
    arguments(field(node, f_.arguments), id);
  }

  void lowerResources(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Try, role, node);
    NodeId block = add(id, Kind::Block, Role::Body, node);
    TSNode resources = childOfType(node, "resource_specification");
    if (!isNull(resources))
      for (TSNode resource : named(resources)) {
        TSNode name = field(resource, f_.name);
        if (!isNull(name)) variable(resource, block, Role::None, name, kConst, text(field(resource, f_.type)) == "var" ? TSNode{} : field(resource, f_.type), field(resource, f_.value));
        else visitChildren(resource, block);
      }
    TSNode inner = field(node, f_.body);
    if (!isNull(inner)) visitChildren(inner, block);
    for (TSNode child : named(node))
      if (is(child, "catch_clause") || is(child, "finally_clause")) visit(child, id, handlerRole(child));
  }

  void lowerArrayNew(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Collection, role, node);
    TSNode written = field(node, f_.type);
    typeRef(written, id, Role::Type);
    TSNode value = field(node, f_.value);
    if (!isNull(value)) visitChildren(value, id, Role::Value);
    // new Type[0] stays as it is.
    std::string_view whole = trim(text(node));
    if (whole.size() > 3 && (whole.substr(whole.size() - 3) == "[0]" || (!isNull(value) && named(value).empty()))) build_[id].modifiers |= kConst;
  }

  // JLS 8.9.3: each constant is a static final field that holds an object of the enum.
  void enumerators(TSNode inner, NodeId type) {
    if (isNull(inner)) return;
    for (TSNode child : named(inner)) {
      if (!is(child, "enum_constant")) {
        if (is(child, "enum_body_declarations")) members(child, type);
        else visit(child, type, Role::None);
        continue;
      }
      TSNode name = field(child, f_.name);
      NodeId id = add(type, Kind::Variable, Role::Member, child);
      build_.setName(id, text(name), begin(name));
      build_[id].modifiers = kStatic | kConst | kPublic | kDefinition;
      typeRefNamed(currentClass_, name, id, Role::Type);
      NodeId create = add(id, Kind::Create, Role::Initialiser, child);
      build_[create].detail = static_cast<uint8_t>(CreateForm::Heap);
      typeRefNamed(currentClass_, name, create, Role::Type, false);
      arguments(field(child, f_.arguments), create);
      if (TSNode body = childOfType(child, "class_body"); !isNull(body)) members(body, type);
    }
  }

  void parameter(TSNode node, NodeId fn) override {
    if (is(node, "receiver_parameter")) return;
    NodeId id = add(fn, Kind::Parameter, Role::Parameter, node);
    TSNode name = field(node, f_.name), written = field(node, f_.type);
    if (is(node, "spread_parameter")) {
      build_[id].modifiers |= kPack;
      TSNode declarator = childOfType(node, "variable_declarator");
      name = field(declarator, f_.name);
      for (TSNode child : named(node))
        if (isNull(written) && !is(child, "modifiers") && !is(child, "variable_declarator")) written = child;
    }
    if (isNull(name)) name = node;
    build_.setName(id, text(name), begin(name));
    typeRef(written, id, Role::Type);
  }

  std::string currentClass_;
  int anonymous_ = 0;  // classes without a name so far
  bool inInterface_ = false, inEnum_ = false;
};

void lowerJava(std::string_view text, const Language::TreeLore*, LoweredFile& out) { JavaLowerer(grammar(), text, out).run(); }
void parseOnlyJava(std::string_view text) { parseOnlyWith(grammar(), text); }

}  // namespace

Language javaLanguage() {
  static constexpr std::string_view kExtensions[] = {".java"};
  static constexpr QuoteForm kQuotes[] = {{"\"\"\"", true, true}, {"\""}, {"'"}};
  static constexpr CommentForm kComments{kQuotes};
  Language language;
  language.id = "java";
  language.name = "Java";
  language.extensions = kExtensions;
  language.separator = ".";
  language.dotted = true;
  language.family = "jvm";
  language.importsInFileOnly = true;
  language.marksConstants = true;
  language.guarantees = &javaGuarantees();
  language.testImports = {"org.junit", "junit.framework", "org.testng"};
  language.facing = &javaFacing();
  language.settling = &javaSettling();
  language.announcing = &javaAnnouncing();
  language.mending = &javaMending();
  language.sound = &javaSound();
  language.handing = &javaHanding();
  language.comments = &kComments;
  language.lower = lowerJava;
  language.parseOnly = parseOnlyJava;
  language.grammar = tree_sitter_java;
  language.writer = javaWriter;
  language.harness = javaHarness;
  return language;
}

}  // namespace elmcart
