// Lowers a Kotlin file. Sections are of the Kotlin language specification, 1.9.
#include "base/text.h"
#include "languages/kotlin/kotlin.h"
#include "languages/kotlin/rephrase.h"
#include "languages/shared/lowerer.h"

extern "C" const TSLanguage* tree_sitter_kotlin(void);

namespace elmcart {
namespace {

enum Own : uint8_t { kPackage, kImports, kClass, kObject, kCompanion, kFunction, kProperty, kInit, kSecondary, kIf, kWhen, kEntry, kTry, kCatch, kFor, kWhile, kJump, kCall, kNavigation, kIndexing, kPostfix, kAssignable, kLambda, kControl, kAnonymous, kCast, kObjectLiteral, kAlias, kTypeTest };

constexpr ShapeRow kRows[] = {
    {"line_comment", Shape::Comment}, {"multiline_comment", Shape::Comment}, {"package_header", Shape::Own, kPackage}, {"import_list", Shape::Pass}, {"import_header", Shape::Own, kImports}, {"class_declaration", Shape::Own, kClass}, {"object_declaration", Shape::Own, kObject}, {"companion_object", Shape::Own, kCompanion},
    {"function_declaration", Shape::Own, kFunction}, {"property_declaration", Shape::Own, kProperty}, {"getter", Shape::Skip}, {"setter", Shape::Skip}, {"anonymous_initializer", Shape::Own, kInit}, {"secondary_constructor", Shape::Own, kSecondary}, {"type_alias", Shape::Own, kAlias}, {"class_body", Shape::Pass}, {"enum_class_body", Shape::Pass}, {"enum_entry", Shape::Skip},
    {"statements", Shape::Block}, {"control_structure_body", Shape::Own, kControl}, {"if_expression", Shape::Own, kIf}, {"when_expression", Shape::Own, kWhen}, {"when_entry", Shape::Own, kEntry}, {"when_subject", Shape::Pass}, {"when_condition", Shape::Pass}, {"try_expression", Shape::Own, kTry}, {"catch_block", Shape::Own, kCatch}, {"finally_block", Shape::Own, kCatch},
    {"for_statement", Shape::Own, kFor}, {"while_statement", Shape::Own, kWhile}, {"do_while_statement", Shape::Own, kWhile}, {"jump_expression", Shape::Own, kJump}, {"assignment", Shape::Assign}, {"directly_assignable_expression", Shape::Own, kAssignable}, {"call_expression", Shape::Own, kCall}, {"navigation_expression", Shape::Own, kNavigation}, {"indexing_expression", Shape::Own, kIndexing}, {"postfix_expression", Shape::Own, kPostfix}, {"prefix_expression", Shape::Unary},
    {"conjunction_expression", Shape::Binary}, {"disjunction_expression", Shape::Binary}, {"equality_expression", Shape::Binary}, {"comparison_expression", Shape::Binary}, {"elvis_expression", Shape::Binary}, {"additive_expression", Shape::Binary}, {"multiplicative_expression", Shape::Binary}, {"infix_expression", Shape::Other}, {"range_expression", Shape::Other}, {"check_expression", Shape::Own, kTypeTest}, {"as_expression", Shape::Own, kCast},
    {"lambda_literal", Shape::Own, kLambda}, {"annotated_lambda", Shape::Pass}, {"anonymous_function", Shape::Own, kAnonymous}, {"object_literal", Shape::Own, kObjectLiteral}, {"parenthesized_expression", Shape::Paren}, {"simple_identifier", Shape::Name}, {"this_expression", Shape::This}, {"super_expression", Shape::This}, {"value_argument", Shape::Pass}, {"value_arguments", Shape::Pass},
    {"string_literal", Shape::Text}, {"interpolated_expression", Shape::Pass}, {"interpolated_identifier", Shape::Name}, {"integer_literal", Shape::Number}, {"long_literal", Shape::Number}, {"hex_literal", Shape::Number}, {"bin_literal", Shape::Number}, {"unsigned_literal", Shape::Number}, {"real_literal", Shape::Number}, {"boolean_literal", Shape::Boolean}, {"character_literal", Shape::Text}, {"collection_literal", Shape::Collection},
    {"modifiers", Shape::Skip}, {"annotation", Shape::Skip}, {"file_annotation", Shape::Skip}, {"type_parameters", Shape::Skip}, {"type_arguments", Shape::Skip}, {"user_type", Shape::Skip}, {"nullable_type", Shape::Skip}, {"shebang_line", Shape::Skip}, {"label", Shape::Skip}, {"spread_expression", Shape::Pass}, {"callable_reference", Shape::Other}, {"type_constraints", Shape::Skip}, {"property_delegate", Shape::Skip}, {"variable_declaration", Shape::Skip}, {"binding_pattern_kind", Shape::Skip},
};

constexpr std::string_view kValueTypes[] = {"Boolean", "Byte", "Short", "Char", "Int", "Long", "Float", "Double", "UInt", "ULong", "String", "Unit", "Nothing"};
constexpr std::string_view kNullWords[] = {"null"};

const SharedGrammar& grammar() {
  static const SharedGrammar kGrammar([] {
    GrammarSpec spec;
    spec.grammar = tree_sitter_kotlin;
    spec.rows = kRows;
    spec.valueTypes = kValueTypes;
    spec.nullWords = kNullWords;
    spec.lockCalls = true;
    return spec;
  }());
  return kGrammar;
}

class KotlinLowerer : public SharedLowerer {
 public:
  using SharedLowerer::SharedLowerer;

 private:
  void unit(TSNode root) override {
    torn_ = ts_node_has_error(root);
    NodeId home = 0;
    if (TSNode header = childOfType(root, "package_header"); !isNull(header))
      if (TSNode name = childOfType(header, "identifier"); !isNull(name)) {
        home = build_.add(0, Kind::Namespace, Role::None, spanOf(root));
        build_.setName(home, scoped(text(name)), begin(name));
      }
    members(root, home);
  }

  // Getters and setters follow the property that they belong to.
  void members(TSNode node, NodeId parent) {
    NodeList kids = named(node);
    for (size_t i = 0; i < kids.size(); ++i) {
      if (!is(kids[i], "property_declaration")) {
        visit(kids[i], parent, Role::None);
        continue;
      }
      TSNode getter = childOfType(kids[i], "getter"), setter = childOfType(kids[i], "setter");
      for (size_t k = i + 1; k < kids.size() && k < i + 6; ++k) {
        if (g_.shapeOf(kids[k]) == Shape::Comment) continue;
        if (is(kids[k], "getter") && isNull(getter)) getter = kids[k];
        else if (is(kids[k], "setter") && isNull(setter)) setter = kids[k];
        else break;
      }
      property(kids[i], parent, getter, setter);
    }
  }

  uint32_t modifiersOf(TSNode node) {
    uint32_t out = inCompanion_ ? kStatic : 0u;
    TSNode list = childOfType(node, "modifiers");
    if (!isNull(list))
      for (TSNode child : all(list)) {
        std::string_view word = text(child);
        if (word == "private") out |= kPrivate;
        else if (word == "protected") out |= kProtected;
        else if (word == "abstract") out |= kAbstract;
        else if (word == "override") out |= kOverride;
        else if (word == "open") out |= kVirtual;
        else if (word == "const") out |= kConst | kConstant;
        else if (word == "suspend") out |= kSuspending;
        else if (word == "@Volatile" || word == "@kotlin.concurrent.Volatile") out |= kVolatile;
      }
    if (!(out & (kPrivate | kProtected))) out |= kPublic;
    return out;
  }

  // A class with `private constructor`: what follows its name tells.
  void classNode(TSNode node, NodeId parent, TypeForm form, std::string_view given = {}) {
    TSNode name = childOfType(node, "type_identifier");
    if (isNull(name)) name = childOfType(node, "simple_identifier");
    std::string_view word = given.empty() ? text(name) : given;
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(form);
    build_[id].modifiers = modifiersOf(node) | kDefinition;
    build_.setName(id, word, isNull(name) ? begin(node) : begin(name));
    annotate(node, id);
    if (TSNode list = childOfType(node, "type_parameters"); !isNull(list))
      for (TSNode one : named(list)) {
        TSNode first = firstNamed(one);
        NodeId ref = add(id, Kind::TypeRef, Role::TypeParameter, one);
        build_.setName(ref, text(isNull(first) ? one : first), begin(one));
      }
    std::string outer = currentClass_;
    bool outerCompanion = inCompanion_;
    inCompanion_ = form == TypeForm::Object;
    currentClass_ = word;
    for (TSNode child : named(node)) {
      if (!is(child, "delegation_specifier")) continue;
      TSNode base = firstNamed(child);
      if (is(base, "constructor_invocation") || is(base, "explicit_delegation")) base = firstNamed(base);
      if (NodeId ref = typeRef(base, id, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
    }
    if (TSNode primary = childOfType(node, "primary_constructor"); !isNull(primary)) {
      bool closed = !isNull(childOfType(primary, "modifiers")) && text(childOfType(primary, "modifiers")).find("private") != std::string_view::npos;
      bool shielded = !isNull(childOfType(primary, "modifiers")) && text(childOfType(primary, "modifiers")).find("protected") != std::string_view::npos;
      NodeId constructor = function(primary, id, FunctionForm::Constructor, "constructor", begin(primary), kDefinition | (closed ? kPrivate : shielded ? kProtected : kPublic));
      for (TSNode one : named(primary)) {
        if (!is(one, "class_parameter")) continue;
        parameter(one, constructor);
        if (TSNode kind = childOfType(one, "binding_pattern_kind"); !isNull(kind)) {
          NodeId field = add(id, Kind::Variable, Role::Member, one);
          TSNode inner = childOfType(one, "simple_identifier");
          build_.setName(field, text(inner), begin(inner));
          build_[field].modifiers = (modifiersOf(one) & ~uint32_t{kStatic}) | (text(kind) == "val" ? kConst : 0u);
          typeRef(typeNode(one), field, Role::Type);
        }
      }
    }
    TSNode inner = childOfType(node, "class_body");
    if (isNull(inner)) inner = childOfType(node, "enum_class_body");
    if (!isNull(inner)) {
      for (TSNode entry : named(inner))
        if (is(entry, "enum_entry")) enumEntry(entry, id);
      members(inner, id);
    }
    inCompanion_ = outerCompanion;
    currentClass_ = outer;
  }

  // Each entry of an enum is an object of it, made with the class.
  void enumEntry(TSNode entry, NodeId type) {
    TSNode name = childOfType(entry, "simple_identifier");
    NodeId id = add(type, Kind::Variable, Role::Member, entry);
    build_.setName(id, text(name), begin(name));
    build_[id].modifiers = kStatic | kConst | kPublic | kDefinition;
    typeRefNamed(currentClass_, name, id, Role::Type);
    NodeId create = add(id, Kind::Create, Role::Initialiser, entry);
    build_[create].detail = static_cast<uint8_t>(CreateForm::Heap);
    typeRefNamed(currentClass_, name, create, Role::Type, false);
    if (TSNode list = childOfType(entry, "value_arguments"); !isNull(list)) arguments(list, create);
    if (TSNode inner = childOfType(entry, "class_body"); !isNull(inner)) members(inner, type);
  }

  TSNode typeNode(TSNode node) const {
    for (TSNode child : named(node))
      if (is(child, "user_type") || is(child, "nullable_type") || is(child, "function_type") || is(child, "parenthesized_type")) return child;
    return {};
  }

  void parameter(TSNode node, NodeId fn) override {
    TSNode inner = is(node, "parameter") || is(node, "class_parameter") || is(node, "parameter_with_optional_type") || is(node, "variable_declaration") ? node : TSNode{};
    if (isNull(inner)) return;
    NodeId id = add(fn, Kind::Parameter, Role::Parameter, node);
    TSNode name = childOfType(node, "simple_identifier");
    if (isNull(name)) name = node;
    build_.setName(id, text(name), begin(name));
    typeRef(typeNode(node), id, Role::Type);
    bool after = false;
    for (TSNode part : all(node)) {
      if (after && ts_node_is_named(part)) visit(part, id, Role::Initialiser);
      after |= text(part) == "=";
    }
  }

  // A default value stands beside its parameter in the list.
  void parameterList(TSNode list, NodeId fn) {
    if (isNull(list)) return;
    NodeId last = kNoNode;
    bool value = false;
    for (TSNode part : all(list)) {
      if (is(part, "parameter") || is(part, "variable_declaration") || is(part, "parameter_with_optional_type")) {
        last = static_cast<NodeId>(file_.nodes.size());
        parameter(part, fn);
        value = false;
      } else if (text(part) == "=") {
        value = true;
      } else if (value && ts_node_is_named(part) && last != kNoNode) {
        visit(part, last, Role::Initialiser);
        value = false;
      }
    }
  }

  void functionBody(TSNode node, NodeId id) {
    TSNode inner = childOfType(node, "function_body");
    if (isNull(inner)) return;
    if (file_[id].kind == Kind::Function) build_[id].modifiers |= kDefinition;
    ++functionDepth_;
    TSNode first = firstNamed(inner);
    bool expression = hasToken(inner, "=");
    NodeId block = add(id, Kind::Block, Role::Body, inner);
    if (TSNode marks = childOfType(node, "modifiers"); !isNull(marks) && text(marks).find("@Synchronized") != std::string_view::npos) {
      // As a synchronized method of Java's: the lock of the object (JLS 8.4.3.6).
      NodeId guard = add(block, Kind::Guard, Role::None, inner);
      add(guard, Kind::This, Role::Lock, inner);
      block = add(guard, Kind::Block, Role::Body, inner);
    }
    if (expression && !isNull(first)) {
      NodeId result = add(block, Kind::Return, Role::None, first);
      visit(first, result, Role::Value);
    } else if (is(first, "statements")) {
      statements(first, block);
    }
    --functionDepth_;
  }

  // mutableMapOf<String, Ship>() tells the type that is not written.
  void typeOfFactory(TSNode value, NodeId variable) {
    static constexpr auto kMade = std::to_array<std::pair<std::string_view, std::string_view>>({
        {"hashMapOf", "HashMap"}, {"hashSetOf", "HashSet"}, {"linkedMapOf", "LinkedHashMap"}, {"mutableListOf", "MutableList"}, {"mutableMapOf", "MutableMap"}, {"mutableSetOf", "MutableSet"},
    });
    TSNode suffix = is(value, "call_expression") ? childOfType(value, "call_suffix") : TSNode{};
    TSNode given = isNull(suffix) ? TSNode{} : childOfType(suffix, "type_arguments");
    auto made = std::find_if(kMade.begin(), kMade.end(), [&](const auto& one) { return one.first == text(firstNamed(value)); });
    if (isNull(given) || made == kMade.end()) return;
    NodeId type = typeRefNamed(made->second, value, variable, Role::Type);
    for (TSNode one : named(given))
      if (type != kNoNode && is(one, "type_projection")) typeRef(firstNamed(one), type, Role::TypeArgument);
  }

  void property(TSNode node, NodeId parent, TSNode getter, TSNode setter) {
    TSNode declaration = childOfType(node, "variable_declaration"), kind = childOfType(node, "binding_pattern_kind");
    if (isNull(declaration)) {  // val (a, b) = …
      TSNode several = childOfType(node, "multi_variable_declaration");
      NodeId other = add(parent, Kind::Other, Role::None, node);
      for (TSNode child : named(node))
        if (!is(child, "multi_variable_declaration") && !is(child, "binding_pattern_kind") && !is(child, "modifiers")) visit(child, other, Role::Operand);
      if (!isNull(several))
        for (TSNode one : named(several)) {
          TSNode name = childOfType(one, "simple_identifier");
          if (isNull(name)) continue;
          NodeId id = add(parent, Kind::Variable, Role::None, one);
          build_.setName(id, text(name), begin(name));
        }
      return;
    }
    // What is indented there belongs to a class that the grammar lost hold of.
    if (torn_ && functionDepth_ == 0 && file_[parent].kind != Kind::Type && begin(node) > 0 && text_[begin(node) - 1] == ' ') return;
    TSNode name = childOfType(declaration, "simple_identifier"), value{}, delegate = childOfType(node, "property_delegate");
    bool after = false;
    for (TSNode part : all(node)) {
      if (after && isNull(value) && (ts_node_is_named(part) || isNothing(part))) value = part;
      after |= text(part) == "=";
    }
    uint32_t bits = functionDepth_ > 0 && file_[parent].kind != Kind::Type ? 0u : modifiersOf(node);
    // A top-level private property is its file's own.
    if (functionDepth_ == 0 && file_[parent].kind != Kind::Type && (bits & kPrivate)) bits |= kStatic;
    if (text(kind) == "val") bits |= kConst;
    if (!isNull(getter) && isNull(value)) {
      NodeId id = function(getter, parent, FunctionForm::Getter, text(name), begin(name), bits & ~uint32_t{kConst});
      typeRef(typeNode(declaration), id, Role::Type);
      functionBody(getter, id);
      if (!isNull(setter)) {
        NodeId set = function(setter, parent, FunctionForm::Setter, "set " + std::string(text(name)), begin(name), bits & ~uint32_t{kConst});
        if (TSNode one = childOfType(setter, "parameter_with_optional_type"); !isNull(one)) parameter(one, set);
        functionBody(setter, set);
      }
      return;
    }
    if (isNull(getter) && isNull(value) && isExtension(node)) {
      // val Ship.berth by …: read and written through what it is delegated to, for each object.
      NodeId id = function(node, parent, FunctionForm::Getter, text(name), begin(name), (bits & ~uint32_t{kConst}) | kDefinition);
      typeRef(typeNode(declaration), id, Role::Type);
      NodeId block = add(id, Kind::Block, Role::Body, node);
      if (!isNull(delegate)) visitChildren(delegate, block);
      return;
    }
    VariableForm form = VariableForm::Plain;
    NodeList steps;  // of the function that makes the value
    if (TSNode call = isNull(delegate) ? TSNode{} : firstNamed(delegate); !isNull(call)) {
      // by lazy { … }: made when first asked for, under a lock unless told otherwise.
      std::string_view written = text(call);
      if (written.substr(0, 4) == "lazy") {
        form = written.find("LazyThreadSafetyMode.NONE") != std::string_view::npos ? VariableForm::LazyUnguarded : VariableForm::Lazy;
        TSNode block = isNull(lambdaOf(call)) ? TSNode{} : childOfType(lambdaOf(call), "statements");
        steps = isNull(block) ? NodeList{} : named(block);
        value = steps.empty() ? TSNode{} : steps.back();
      } else {
        value = call;
      }
    }
    NodeId id = add(parent, Kind::Variable, file_[parent].kind == Kind::Type ? Role::Member : Role::None, node);
    build_[id].detail = static_cast<uint8_t>(form);
    build_.setName(id, text(name), begin(name));
    build_[id].modifiers = bits | kDefinition;
    if (!isNull(childOfType(node, "modifiers")) && text(childOfType(node, "modifiers")).find("lateinit") != std::string_view::npos) build_[id].modifiers &= ~uint32_t{kConst};
    if (isNull(typeNode(declaration))) typeOfFactory(value, id);
    else typeRef(typeNode(declaration), id, Role::Type);
    if (!isNull(value) && isNothing(value)) {  // a token without a node of its own
      NodeId nothing = add(id, Kind::Literal, Role::Initialiser, value);
      build_[nothing].detail = static_cast<uint8_t>(LiteralForm::Null);
    } else if (steps.size() > 1) {
      NodeId made = add(id, Kind::Call, Role::Initialiser, delegate);
      runAtOnce(steps, add(made, Kind::Lambda, Role::Callee, delegate), delegate);
    } else if (!isNull(value)) {
      visit(value, id, Role::Initialiser);
    }
    // 4.2.2: what runs when it is read or set; `field` is the value that is kept.
    keptName_ = text(name);
    for (TSNode accessor : {getter, setter}) {
      if (isNull(accessor) || isNull(childOfType(accessor, "function_body"))) continue;
      bool gets = is(accessor, "getter");
      NodeId fn = function(accessor, parent, FunctionForm::Function, (gets ? "get " : "set ") + std::string(text(name)), begin(name), bits & ~uint32_t{kConst});
      if (TSNode one = childOfType(accessor, "parameter_with_optional_type"); !isNull(one)) parameter(one, fn);
      functionBody(accessor, fn);
    }
    keptName_ = {};
  }

  bool ownName(TSNode node, NodeId parent, Role role) override {
    if (keptName_.empty() || text(node) != "field") return false;
    build_.setName(add(parent, Kind::Name, role, node), keptName_, begin(node));
    return true;
  }

  // Has it a type before its name, the class that it extends?
  bool isExtension(TSNode node) const {
    for (TSNode part : all(node)) {
      if (is(part, "variable_declaration")) return false;
      if (is(part, "user_type") || is(part, "nullable_type")) return true;
    }
    return false;
  }

  // The statements of a function that is called where it stands: the last is what it returns.
  void runAtOnce(NodeList steps, NodeId lambda, TSNode node) {
    NodeId block = add(lambda, Kind::Block, Role::Body, node);
    ++functionDepth_;
    for (TSNode step : steps) {
      bool last = ts_node_eq(step, steps.back());
      NodeId into = last ? add(block, Kind::Return, Role::None, step) : block;
      visit(step, into, last ? Role::Value : Role::None);
    }
    --functionDepth_;
  }
  TSNode lambdaOf(TSNode call) {
    TSNode suffix = childOfType(call, "call_suffix");
    TSNode lambda = isNull(suffix) ? TSNode{} : childOfType(suffix, "annotated_lambda");
    return isNull(lambda) ? TSNode{} : childOfType(lambda, "lambda_literal");
  }

  bool ownAssign(TSNode node, NodeId parent, Role role) override {
    NodeList kids = named(node);
    NodeList every = all(node);
    if (kids.empty()) return true;
    std::string_view op;
    for (TSNode part : every)
      if (!ts_node_is_named(part) && text(part).find('=') != std::string_view::npos && op.empty()) op = text(part);
    NodeId id = add(parent, Kind::Assign, role, node);
    build_[id].detail = static_cast<uint8_t>(op.size() > 1 ? AssignForm::Compound : AssignForm::Plain);
    visit(kids.front(), id, Role::Target);
    if (kids.size() > 1) visit(kids.back(), id, Role::Value);
    else if (text(every.back()) == "null") build_[add(id, Kind::Literal, Role::Value, every.back())].detail = static_cast<uint8_t>(LiteralForm::Null);
    return true;
  }

  void call(TSNode node, NodeId parent, Role role) {
    NodeList kids = named(node);
    TSNode callee = kids.empty() ? TSNode{} : kids.front(), suffix = childOfType(node, "call_suffix");
    TSNode lambda = lambdaOf(node);
    // synchronized(lock) { … } and lock.withLock { … }
    TSNode lock{};
    if (is(callee, "call_expression") && text(firstNamed(callee)) == "synchronized") {
      TSNode given = childOfType(callee, "call_suffix");
      given = isNull(given) ? TSNode{} : childOfType(given, "value_arguments");
      lock = isNull(given) ? TSNode{} : firstNamed(given);
    } else if (text(callee) == "synchronized" && !isNull(suffix)) {
      TSNode given = childOfType(suffix, "value_arguments");
      lock = isNull(given) ? TSNode{} : firstNamed(given);
    } else if (is(callee, "navigation_expression")) {
      std::string_view written = text(callee);
      if (written.size() > 9 && written.substr(written.size() - 9) == ".withLock") lock = firstNamed(callee);
    }
    if (!isNull(lock) && !isNull(lambda)) {
      NodeId guard = add(parent, Kind::Guard, role, node);
      build_[guard].detail = static_cast<uint8_t>(GuardForm::Scoped);
      visit(lock, guard, Role::Lock);
      NodeId block = add(guard, Kind::Block, Role::Body, lambda);
      if (TSNode inner = childOfType(lambda, "statements"); !isNull(inner)) statements(inner, block);
      return;
    }
    // value?.let { return it }: what is there is handed out.
    if (role == Role::None && is(callee, "navigation_expression") && !isNull(lambda) && text(callee).ends_with("?.let")) {
      TSNode inner = childOfType(lambda, "statements");
      if (named(inner).size() == 1 && text(firstNamed(inner)) == "return it") {
        NodeId branch = add(parent, Kind::If, role, node);
        nullTest(callee, branch, Role::Condition, NullTestForm::IsNotNull, firstNamed(callee));
        NodeId block = add(branch, Kind::Block, Role::Then, lambda);
        NodeId result = add(block, Kind::Return, Role::None, firstNamed(inner));
        visit(firstNamed(callee), result, Role::Value);
        return;
      }
    }
    // value.also { slot = it }: an assignment that is worth its value.
    if (is(callee, "navigation_expression") && !isNull(lambda)) {
      std::string_view written = text(callee);
      TSNode inner = childOfType(lambda, "statements");
      NodeList steps = named(inner);
      bool also = written.size() > 5 && written.substr(written.size() - 5) == ".also";
      if (also && steps.size() == 1 && is(steps[0], "assignment")) {
        NodeList sides = named(steps[0]);
        if (sides.size() == 2 && text(sides[1]) == "it") {
          NodeId assign = add(parent, Kind::Assign, role, node);
          visit(sides[0], assign, Role::Target);
          visit(firstNamed(callee), assign, Role::Value);
          return;
        }
      }
    }
    NodeId id = add(parent, Kind::Call, role, node);
    if (!isNull(callee)) visit(callee, id, Role::Callee);
    if (isNull(suffix)) return;
    if (TSNode list = childOfType(suffix, "value_arguments"); !isNull(list))
      for (TSNode one : named(list)) {
        NodeList parts = named(one);
        if (!parts.empty()) visit(parts.back(), id, Role::Argument);
        else add(id, Kind::Literal, Role::Argument, one);
      }
    if (!isNull(lambda)) visit(lambda, id, Role::Argument);
  }

  // What follows the package's name or the last import belongs to it, for the grammar.
  void trailingComments(TSNode node, NodeId parent) {
    for (TSNode part : named(node))
      if (g_.shapeOf(part) == Shape::Comment) visit(part, parent, Role::None);
  }

  void own(TSNode node, uint8_t tag, NodeId parent, Role role) override {
    switch (tag) {
      case kPackage: trailingComments(node, parent); break;
      case kImports: lowerImports(node, parent); break;
      case kClass: classNode(node, parent, hasToken(node, "interface") ? TypeForm::Interface : hasToken(node, "enum") ? TypeForm::Enum : TypeForm::Class); break;
      case kObject: classNode(node, parent, TypeForm::Object); break;
      case kCompanion: lowerCompanion(node, parent); break;
      case kFunction: lowerFunction(node, parent); break;
      case kProperty: property(node, parent, childOfType(node, "getter"), childOfType(node, "setter")); break;
      case kInit: lowerInit(node, parent); break;
      case kSecondary: lowerSecondary(node, parent); break;
      case kControl: lowerControl(node, parent, role); break;
      case kIf: lowerIf(node, parent, role); break;
      case kWhen: {
        NodeId id = add(parent, Kind::Switch, role, node);
        visitChildren(node, id);
        break;
      }
      case kEntry: {
        NodeId id = add(parent, Kind::Block, Role::None, node);
        visitChildren(node, id);
        break;
      }
      case kTry: {
        NodeId id = add(parent, Kind::Try, role, node);
        for (TSNode child : named(node)) visit(child, id, is(child, "statements") ? Role::Body : handlerRole(child));
        break;
      }
      case kCatch: {
        NodeId id = handler(node, parent, role, childOfType(node, "simple_identifier"), childOfType(node, "user_type"), {});
        if (TSNode inner = childOfType(node, "statements"); !isNull(inner)) statements(inner, id);
        break;
      }
      case kFor: lowerFor(node, parent, role); break;
      case kWhile: lowerWhile(node, parent, role); break;
      case kJump: {
        std::string_view word = text(node);
        Kind kind = word.substr(0, 6) == "return" ? Kind::Return : word.substr(0, 5) == "throw" ? Kind::Throw : Kind::Jump;
        NodeId id = add(parent, kind, role, node);
        if (kind != Kind::Jump) visitChildren(node, id, Role::Value);
        break;
      }
      case kCall: call(node, parent, role); break;
      case kNavigation: {
        TSNode object = firstNamed(node), suffix = childOfType(node, "navigation_suffix");
        NodeId id = add(parent, Kind::Member, role, node);
        visit(object, id, Role::Receiver);
        if (TSNode name = isNull(suffix) ? TSNode{} : firstNamed(suffix); !isNull(name)) build_.setName(id, text(name), begin(name));
        break;
      }
      case kIndexing: case kAssignable: lowerIndexing(node, parent, role); break;
      case kPostfix: lowerPostfix(node, parent, role); break;
      case kLambda: lowerLambda(node, parent, role); break;
      case kAnonymous: {
        NodeId id = add(parent, Kind::Lambda, role, node);
        parameterList(childOfType(node, "function_value_parameters"), id);
        functionBody(node, id);
        break;
      }
      case kCast: {
        NodeList kids = named(node);
        NodeId id = add(parent, Kind::Cast, role, node);
        if (kids.size() > 1) typeRef(kids.back(), id, Role::Type);
        if (!kids.empty()) visit(kids.front(), id, Role::Operand);
        break;
      }
      case kTypeTest: {
        NodeId id = add(parent, Kind::Compare, role, node);
        if (TSNode first = firstNamed(node); !isNull(first)) visit(first, id, Role::Operand);
        break;
      }
      case kAlias: {
        TSNode name = childOfType(node, "type_identifier");
        NodeId id = add(parent, Kind::Alias, Role::Member, node);
        build_.setName(id, text(name), begin(name));
        typeRef(typeNode(node), id, Role::Type);
        break;
      }
      case kObjectLiteral: lowerObjectLiteral(node, parent, role); break;
      default: break;
    }
  }

  void lowerImports(TSNode node, NodeId parent) {
    trailingComments(node, parent);
    TSNode name = childOfType(node, "identifier");
    if (isNull(name)) return;
    NodeId import = add(parent, Kind::Import, Role::None, node);
    build_.setName(import, scoped(text(name)), begin(name));
    NodeId id = add(parent, Kind::Using, Role::None, node);
    TSNode alias = childOfType(node, "import_alias");
    if (!isNull(alias)) {
      build_.setName(id, text(firstNamed(alias)), begin(alias));
      NodeId ref = add(id, Kind::TypeRef, Role::Type, name);
      build_.setName(ref, scoped(text(name)), begin(name));
    } else {
      build_.setName(id, scoped(text(name)), begin(name));
    }
    if (!isNull(childOfType(node, "wildcard_import"))) build_[id].modifiers |= kWholeScope;
  }

  void lowerCompanion(TSNode node, NodeId parent) {
    // Its members are reached through the class around it.
    bool outer = inCompanion_;
    inCompanion_ = true;
    if (TSNode inner = childOfType(node, "class_body"); !isNull(inner)) members(inner, parent);
    inCompanion_ = outer;
  }

  void lowerFunction(TSNode node, NodeId parent) {
    TSNode name = childOfType(node, "simple_identifier");
    // fun Type.name(): joins the type.
    std::string qualified(text(name));
    TSNode receiver{};
    bool dot = false;
    for (TSNode part : all(node)) {
      if (ts_node_eq(part, name)) break;
      if (is(part, "user_type") || is(part, "nullable_type")) receiver = part;
      dot |= text(part) == ".";
    }
    if (functionDepth_ > 0 && file_[parent].kind != Kind::Type) {
      NodeId id = add(parent, Kind::Variable, Role::None, node);
      build_.setName(id, text(name), begin(name));
      build_[id].modifiers = kDefinition | kConst;
      NodeId lambda = add(id, Kind::Lambda, Role::Initialiser, node);
      parameterList(childOfType(node, "function_value_parameters"), lambda);
      functionBody(node, lambda);
      return;
    }
    if (dot && !isNull(receiver)) {
      std::string_view type = text(receiver);
      qualified = scoped(type.substr(0, type.find_first_of("<?"))) + "::" + qualified;
    }
    NodeId id = function(node, parent, FunctionForm::Function, qualified, begin(name), modifiersOf(node));
    TSNode result{};
    bool after = false;
    for (TSNode part : all(node)) {
      if (is(part, "function_value_parameters")) after = true;
      else if (after && (is(part, "user_type") || is(part, "nullable_type"))) result = part;
    }
    typeRef(result, id, Role::Type);
    parameterList(childOfType(node, "function_value_parameters"), id);
    functionBody(node, id);
  }

  void lowerInit(TSNode node, NodeId parent) {
    // The initialiser block of a class runs in its constructor, of an object with it.
    NodeId id = function(node, parent, FunctionForm::Initialiser, "init", begin(node), kDefinition | kPrivate | (inCompanion_ ? kStatic : 0u));
    NodeId block = add(id, Kind::Block, Role::Body, node);
    ++functionDepth_;
    if (TSNode inner = childOfType(node, "statements"); !isNull(inner)) statements(inner, block);
    --functionDepth_;
  }

  void lowerSecondary(TSNode node, NodeId parent) {
    NodeId id = function(node, parent, FunctionForm::Constructor, "constructor", begin(node), modifiersOf(node) | kDefinition);
    parameterList(childOfType(node, "function_value_parameters"), id);
    if (TSNode chained = childOfType(node, "constructor_delegation_call"); !isNull(chained)) {
      NodeId init = add(id, Kind::FieldInit, Role::FieldInit, chained);
      build_.setName(init, hasToken(chained, "this") ? std::string_view(currentClass_) : std::string_view("super"), begin(chained));
      if (TSNode list = childOfType(chained, "value_arguments"); !isNull(list)) arguments(list, init);
    }
    if (TSNode inner = childOfType(node, "statements"); !isNull(inner)) {
      NodeId block = add(id, Kind::Block, Role::Body, inner);
      ++functionDepth_;
      statements(inner, block);
      --functionDepth_;
    }
  }

  void lowerControl(TSNode node, NodeId parent, Role role) {
    if (TSNode inner = childOfType(node, "statements"); !isNull(inner)) {
      NodeId id = add(parent, Kind::Block, role, node);
      statements(inner, id);
    } else if (TSNode only = firstNamed(node); !isNull(only)) {
      bool value = role == Role::Then || role == Role::Else;
      if (value && file_[parent].kind == Kind::Conditional) {
        visit(only, parent, role);
      } else {
        NodeId id = add(parent, Kind::Block, role, node);
        visit(only, id, Role::None);
      }
    }
  }

  void lowerIf(TSNode node, NodeId parent, Role role) {
    bool asValue = role != Role::None && role != Role::Then && role != Role::Else && role != Role::Body;
    NodeId id = add(parent, asValue ? Kind::Conditional : Kind::If, role, node);
    bool otherwise = false, first = true;
    for (TSNode part : all(node)) {
      if (text(part) == "else" && !ts_node_is_named(part)) otherwise = true;
      if (!ts_node_is_named(part)) continue;
      if (first) {
        condition(part, id, Role::Condition);
        first = false;
      } else {
        visit(part, id, otherwise ? Role::Else : Role::Then);
      }
    }
  }

  void lowerFor(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Loop, role, node);
    for (TSNode child : named(node)) {
      if (is(child, "variable_declaration")) {
        TSNode name = childOfType(child, "simple_identifier");
        NodeId item = add(id, Kind::Variable, Role::None, child);
        build_.setName(item, text(name), begin(name));
      } else {
        visit(child, id, is(child, "control_structure_body") ? Role::Body : Role::Operand);
      }
    }
  }

  void lowerWhile(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Loop, role, node);
    for (TSNode child : named(node)) {
      if (is(child, "control_structure_body")) visit(child, id, Role::Body);
      else condition(child, id, Role::Condition);
    }
  }

  // a[i]; and what is assigned to, a.b[i].c, whose suffixes stand side by side: the last one is outermost.
  void lowerIndexing(TSNode node, NodeId parent, Role role) {
    NodeList kids = named(node);
    if (!kids.empty()) lowerSuffixes(node, kids, kids.size() - 1, parent, role);
  }

  void lowerSuffixes(TSNode node, const NodeList& kids, size_t last, NodeId parent, Role role) {
    if (last == 0) {
      visit(kids[0], parent, role);
      return;
    }
    bool member = is(kids[last], "navigation_suffix");
    NodeId id = build_.add(parent, member ? Kind::Member : Kind::Index, role, {spanOf(node).begin, spanOf(kids[last]).end});
    lowerSuffixes(node, kids, last - 1, id, Role::Receiver);
    if (!member) visitChildren(kids[last], id, Role::Argument);
    else if (TSNode name = firstNamed(kids[last]); !isNull(name)) build_.setName(id, text(name), begin(name));
  }

  void lowerPostfix(TSNode node, NodeId parent, Role role) {
    bool update = hasToken(node, "++") || hasToken(node, "--");
    if (!update) {
      visit(firstNamed(node), parent, role);  // x!!
      return;
    }
    NodeId id = add(parent, Kind::Update, role, node);
    visit(firstNamed(node), id, Role::Target);
  }

  void lowerLambda(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Lambda, role, node);
    if (TSNode list = childOfType(node, "lambda_parameters"); !isNull(list)) parameters(list, id);
    if (TSNode inner = childOfType(node, "statements"); !isNull(inner)) {
      NodeId block = add(id, Kind::Block, Role::Body, inner);
      ++functionDepth_;
      statements(inner, block);
      --functionDepth_;
    }
  }

  void lowerObjectLiteral(TSNode node, NodeId parent, Role role) {
    // Object expressions: an object of a class without a name, made where it stands.
    TSNode base = childOfType(node, "delegation_specifier");
    TSNode named = isNull(base) ? base : firstNamed(base);
    if (!isNull(named) && (is(named, "constructor_invocation") || is(named, "explicit_delegation"))) named = firstNamed(named);
    std::string word = isNull(named) ? "object" : std::string(text(named).substr(0, text(named).find('<')));
    NodeId id = add(parent, Kind::Create, role, node);
    build_[id].detail = static_cast<uint8_t>(CreateForm::Heap);
    if (NodeId ref = isNull(named) ? kNoNode : typeRef(named, id, Role::Type); ref != kNoNode) build_[ref].modifiers &= ~kManaged;
    if (TSNode made = isNull(base) ? base : childOfType(base, "constructor_invocation"); !isNull(made)) arguments(childOfType(made, "value_arguments"), id);
    std::string name = word + "$" + std::to_string(++anonymous_);
    classNode(node, id, TypeForm::Class, name);
  }

  std::string currentClass_;
  std::string_view keptName_;  // of the property whose accessor is lowered
  int anonymous_ = 0;  // objects of classes without a name so far
  bool torn_ = false;  // has the file bytes that the grammar could not read?
  bool inCompanion_ = false;
  int functionDepth_ = 0;
};

}  // namespace

Language kotlinLanguage() {
  static constexpr std::string_view kExtensions[] = {".kt", ".kts"};
  static constexpr std::string_view kInterpreters[] = {"kotlin"};
  Language language;
  language.id = "kotlin";
  language.name = "Kotlin";
  language.extensions = kExtensions;
  language.interpreters = kInterpreters;
  language.separator = ".";
  language.dotted = true;
  language.family = "jvm";
  language.importsInFileOnly = true;
  language.infersTypes = true;
  language.createsByCall = true;
  language.marksConstants = true;
  language.guarantees = &kotlinGuarantees();
  language.testImports = {"org.junit", "junit.framework", "kotlin.test"};
  language.facing = &kotlinFacing();
  language.settling = &kotlinSettling();
  language.announcing = &kotlinAnnouncing();
  language.mending = &kotlinMending();
  language.sound = &kotlinSound();
  language.handing = &kotlinHanding();
  language.lower = [](std::string_view text, const Language::TreeLore*, LoweredFile& out) {
    KotlinLowerer(grammar(), text, out).run(rephraseKotlin(text).text());
  };
  language.grammar = tree_sitter_kotlin;
  language.forGrammar = [](std::string_view text) { return std::string(rephraseKotlin(text).text()); };
  language.writer = kotlinWriter;
  language.parseOnly = [](std::string_view text) { parseOnlyWith(grammar(), text); };
  return language;
}

}  // namespace elmcart
