// Lowers a Go file. Sections are of the Go Programming Language Specification.
#include <set>

#include "base/text.h"
#include "languages/comments.h"
#include "languages/go/go.h"
#include "languages/shared/lowerer.h"

extern "C" const TSLanguage* tree_sitter_go(void);

namespace elmcart {
namespace {

enum Own : uint8_t { kPackage, kImport, kConst_, kVar, kTypeDecl, kFunction, kMethod, kShort, kComposite, kFuncLiteral, kForStmt, kIncrement, kUnaryExpr, kCaseClause, kGo, kDefer, kIfStmt };

constexpr ShapeRow kRows[] = {
    {"comment", Shape::Comment}, {"package_clause", Shape::Own, kPackage}, {"import_declaration", Shape::Own, kImport}, {"const_declaration", Shape::Own, kConst_}, {"var_declaration", Shape::Own, kVar}, {"type_declaration", Shape::Own, kTypeDecl},
    {"function_declaration", Shape::Own, kFunction}, {"method_declaration", Shape::Own, kMethod}, {"short_var_declaration", Shape::Own, kShort}, {"block", Shape::Block}, {"if_statement", Shape::Own, kIfStmt}, {"for_statement", Shape::Own, kForStmt},
    {"expression_switch_statement", Shape::Switch}, {"type_switch_statement", Shape::Switch}, {"select_statement", Shape::Switch}, {"expression_case", Shape::Own, kCaseClause}, {"default_case", Shape::Own, kCaseClause}, {"type_case", Shape::Own, kCaseClause}, {"communication_case", Shape::Own, kCaseClause},
    {"return_statement", Shape::Return}, {"go_statement", Shape::Own, kGo}, {"defer_statement", Shape::Own, kDefer}, {"break_statement", Shape::Jump}, {"continue_statement", Shape::Jump}, {"goto_statement", Shape::Jump}, {"fallthrough_statement", Shape::Skip}, {"labeled_statement", Shape::Pass}, {"label_name", Shape::Skip},
    {"expression_statement", Shape::Statement}, {"send_statement", Shape::Statement}, {"inc_statement", Shape::Own, kIncrement}, {"dec_statement", Shape::Own, kIncrement}, {"assignment_statement", Shape::Assign}, {"expression_list", Shape::Pass},
    {"call_expression", Shape::Call}, {"selector_expression", Shape::Member}, {"index_expression", Shape::Index}, {"slice_expression", Shape::Index}, {"identifier", Shape::Name}, {"field_identifier", Shape::Skip}, {"package_identifier", Shape::Name}, {"type_identifier", Shape::Name}, {"blank_identifier", Shape::Skip},
    {"nil", Shape::Null}, {"true", Shape::Boolean}, {"false", Shape::Boolean}, {"iota", Shape::Number}, {"int_literal", Shape::Number}, {"float_literal", Shape::Number}, {"imaginary_literal", Shape::Number}, {"rune_literal", Shape::Text}, {"interpreted_string_literal", Shape::Text}, {"raw_string_literal", Shape::Text},
    {"binary_expression", Shape::Binary}, {"unary_expression", Shape::Own, kUnaryExpr}, {"parenthesized_expression", Shape::Paren}, {"composite_literal", Shape::Own, kComposite}, {"literal_value", Shape::Pass}, {"keyed_element", Shape::Pass}, {"literal_element", Shape::Pass}, {"func_literal", Shape::Own, kFuncLiteral},
    {"type_assertion_expression", Shape::Cast}, {"type_conversion_expression", Shape::Cast}, {"type_instantiation_expression", Shape::Pass}, {"empty_statement", Shape::Skip}, {"type_arguments", Shape::Skip}, {"pointer_type", Shape::Skip}, {"slice_type", Shape::Skip}, {"map_type", Shape::Skip}, {"channel_type", Shape::Skip}, {"function_type", Shape::Skip}, {"struct_type", Shape::Skip}, {"interface_type", Shape::Skip}, {"array_type", Shape::Skip}, {"qualified_type", Shape::Skip}, {"generic_type", Shape::Skip}, {"variadic_argument", Shape::Pass},
};

constexpr std::string_view kNullWords[] = {"nil"};

const SharedGrammar& grammar() {
  static const SharedGrammar kGrammar([] {
    GrammarSpec spec;
    spec.grammar = tree_sitter_go;
    spec.rows = kRows;
    spec.nullWords = kNullWords;
    spec.references = false;
    spec.typeArguments = '[';
    return spec;
  }());
  return kGrammar;
}

class GoLowerer : public SharedLowerer {
 public:
  using SharedLowerer::SharedLowerer;

 private:
  // Packages: the files of a folder share one block of names.
  std::string packagePath() const {
    size_t slash = file_.path.rfind('/');
    std::string out;
    for (char c : slash == std::string::npos ? std::string("main") : file_.path.substr(0, slash)) out += c == '/' ? std::string("::") : std::string(1, c);
    return out;
  }

  void unit(TSNode root) override {
    std::string path = packagePath();
    if (file_.path.find('/') == std::string::npos)
      for (TSNode child : named(root))
        if (is(child, "package_clause")) path = std::string(text(firstNamed(child)));
    home_ = build_.add(0, Kind::Namespace, Role::None, spanOf(root));
    build_.setName(home_, path, 0);
    visitChildren(root, home_);
  }

  // Exported identifiers begin with a capital letter.
  static uint32_t visibility(std::string_view name) { return !name.empty() && name[0] >= 'A' && name[0] <= 'Z' ? kPublic : kPrivate; }

  void values(TSNode spec, NodeId home, bool constant) {
    TSNode value = field(spec, f_.value), type = field(spec, f_.type);
    std::vector<TSNode> given = isNull(value) ? std::vector<TSNode>{} : is(value, "expression_list") ? named(value) : std::vector<TSNode>{value};
    size_t i = 0;
    for (TSNode name : named(spec)) {
      NodeId parent = home;
      if (!is(name, "identifier")) continue;
      if (!isNull(value) && begin(name) >= begin(value)) break;
      TSNode own = i < given.size() ? given[i] : TSNode{};
      ++i;
      if (text(name) == "_") {
        // At the top of a file a value without a name is a statement about types, unless it calls something: then that runs
        // before init() does ("Package initialization").
        if (isNull(type) && functionDepth_ == 0 && is(own, "call_expression") && !is(field(own, f_.function), "parenthesized_expression")) {
          NodeId runs = function(spec, parent, FunctionForm::Initialiser, "init", begin(name), kPrivate);
          build_[runs].modifiers |= kDefinition;
          parent = add(runs, Kind::Block, Role::Body, own);
        } else if (functionDepth_ == 0) {
          continue;
        }
        if (!isNull(own)) visit(own, parent, Role::None);
        continue;
      }
      uint32_t bits = (constant ? kConst | kConstant : 0u) | (functionDepth_ == 0 ? visibility(text(name)) : 0u);
      TSNode unnamed = functionDepth_ == 0 ? structOf(type, own) : TSNode{};
      if (isNull(unnamed)) {
        variable(spec, parent, functionDepth_ == 0 ? Role::Member : Role::None, name, bits, type, own);
        continue;
      }
      std::string called = std::string(text(name)) + "$1";
      NodeId made = add(parent, Kind::Type, Role::Member, unnamed);
      build_[made].detail = static_cast<uint8_t>(TypeForm::Struct);
      build_[made].modifiers = kDefinition | kPrivate;
      build_.setName(made, called, begin(unnamed));
      structFields(unnamed, made);
      NodeId id = variable(spec, parent, Role::Member, name, bits, {}, {});
      typeRefNamed(called, unnamed, id, Role::Type);
      if (isNull(own)) continue;
      NodeId literal = add(id, Kind::Create, Role::Initialiser, own);
      typeRefNamed(called, unnamed, literal, Role::Type);
      literalParts(field(own, f_.body), literal, true);
    }
  }

  // var desk struct { … }, var desk = struct { … } { … }: a type without a name, of one variable.
  TSNode structOf(TSNode type, TSNode value) const {
    if (isNull(type) && is(value, "composite_literal")) type = field(value, f_.type);
    else if (!isNull(value)) return {};
    return is(type, "struct_type") ? type : TSNode{};
  }

  void specs(TSNode node, NodeId parent, bool constant) {
    for (TSNode child : named(node)) {
      if (is(child, "var_spec_list")) specs(child, parent, constant);
      else if (is(child, "var_spec") || is(child, "const_spec")) values(child, parent, constant);
    }
  }

  void typeSpec(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name), type = field(node, f_.type);
    if (is(node, "type_alias") || (!is(type, "struct_type") && !is(type, "interface_type"))) {
      if (is(node, "type_alias")) {
        NodeId id = add(parent, Kind::Alias, Role::Member, node);
        build_.setName(id, text(name), begin(name));
        typeRef(type, id, Role::Type);
        return;
      }
    }
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(is(type, "interface_type") ? TypeForm::Interface : TypeForm::Struct);
    build_[id].modifiers = kDefinition | visibility(text(name));
    build_.setName(id, text(name), begin(name));
    if (is(type, "interface_type")) {
      for (TSNode method : named(type)) {
        if (!is(method, "method_spec") && !is(method, "method_elem")) continue;
        TSNode word = field(method, f_.name);
        NodeId fn = function(method, id, FunctionForm::Function, text(word), begin(word), kAbstract | kPublic);
        typeRef(field(method, f_.result), fn, Role::Type);
        parameters(field(method, f_.parameters), fn);
      }
      return;
    }
    structFields(type, id);
  }

  void structFields(TSNode type, NodeId id) {
    TSNode list = childOfType(type, "field_declaration_list");
    if (isNull(list)) return;
    for (TSNode one : named(list)) {
      if (!is(one, "field_declaration")) continue;
      TSNode written = field(one, f_.type);
      bool any = false;
      for (TSNode word : named(one)) {
        if (!is(word, "field_identifier")) continue;
        any = true;
        variable(one, id, Role::Member, word, visibility(text(word)), written, {});
      }
      // An embedded struct lends its fields and methods.
      if (!any)
        if (NodeId ref = typeRef(written, id, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
    }
  }

  // func next(s string) (i int, end bool): results with names are variables of the body ("Function types").
  void namedResults(TSNode results, NodeId block) {
    if (!is(results, "parameter_list")) return;
    for (TSNode one : named(results))
      for (TSNode name : named(one))
        if (is(one, "parameter_declaration") && is(name, "identifier") && text(name) != "_") variable(one, block, Role::None, name, 0, field(one, f_.type), {});
  }

  void functionParts(TSNode node, NodeId id) {
    TSNode result = field(node, f_.result);
    if (is(result, "parameter_list")) {  // several results: the first tells
      TSNode first = firstNamed(result);
      if (!isNull(first)) result = isNull(field(first, f_.type)) ? first : field(first, f_.type);
      else result = TSNode{};
    }
    typeRef(result, id, Role::Type);
    parameters(field(node, f_.parameters), id);
    TSNode inner = field(node, f_.body);
    if (isNull(inner)) return;
    if (file_[id].kind == Kind::Function) build_[id].modifiers |= kDefinition;
    ++functionDepth_;
    NodeId block = add(id, Kind::Block, Role::Body, inner);
    namedResults(field(node, f_.result), block);
    statements(inner, block);
    --functionDepth_;
  }

  void parameter(TSNode node, NodeId fn) override {
    TSNode type = field(node, f_.type);
    bool any = false;
    for (TSNode name : named(node)) {
      if (!is(name, "identifier")) continue;
      any = true;
      NodeId id = add(fn, Kind::Parameter, Role::Parameter, node);
      build_.setName(id, text(name), begin(name));
      typeRef(type, id, Role::Type);
      if (is(node, "variadic_parameter_declaration")) build_[id].modifiers |= kPack;
    }
    if (!any) {
      NodeId id = add(fn, Kind::Parameter, Role::Parameter, node);
      typeRef(isNull(type) ? node : type, id, Role::Type);
    }
  }

  TSNode lockOf(TSNode statement, bool taking) const override {
    if (is(statement, "labeled_statement") && !named(statement).empty()) statement = named(statement).back();
    bool may = is(statement, "expression_statement") || (!taking && is(statement, "defer_statement"));
    return may ? lockedBy(firstNamed(statement), taking ? "Lock" : "Unlock", taking ? "RLock" : "RUnlock") : TSNode{};
  }
  bool isDeferred(TSNode statement) const override { return is(statement, "defer_statement"); }

  TSNode lockedBy(TSNode call, std::string_view name, std::string_view other) const {
    if (!is(call, "call_expression")) return {};
    TSNode callee = field(call, f_.function);
    if (!is(callee, "selector_expression")) return {};
    std::string_view method = text(field(callee, f_.field));
    return method == name || method == other ? field(callee, f_.operand) : TSNode{};
  }

  bool ownName(TSNode node, NodeId parent, Role role) override {
    if (receiver_.empty() || text(node) != receiver_) return false;
    add(parent, Kind::This, role, node);
    return true;
  }

  bool ownCall(TSNode node, NodeId parent, Role role) override {
    TSNode callee = field(node, f_.function), list = field(node, f_.arguments);
    NodeList given = named(list);
    // sync.Once: once.Do(f) runs f the first time only.
    if (is(callee, "selector_expression") && text(field(callee, f_.field)) == "Do" && given.size() == 1) {
      NodeId id = add(parent, Kind::Once, role, node);
      visit(field(callee, f_.operand), id, Role::Lock);
      if (is(given[0], "func_literal")) {
        visit(field(given[0], f_.body), id, Role::Body);
      } else {
        NodeId block = add(id, Kind::Block, Role::Body, given[0]);
        NodeId call = add(block, Kind::Call, Role::None, given[0]);
        visit(given[0], call, Role::Callee);
      }
      return true;
    }
    if (text(callee) == "new" && given.size() == 1) {
      NodeId id = add(parent, Kind::Create, role, node);
      build_[id].detail = static_cast<uint8_t>(CreateForm::Heap);
      typeRef(given[0], id, Role::Type);
      return true;
    }
    if (text(callee) == "make" && !given.empty()) {
      NodeId id = add(parent, Kind::Create, role, node);
      typeRef(given[0], id, Role::Type);
      for (size_t i = 1; i < given.size(); ++i) visit(given[i], id, Role::Argument);
      return true;
    }
    // delete(m, k) takes m[k] away; clear(m) is called on it.
    if (text(callee) == "delete" && given.size() == 2) {
      NodeId id = add(parent, Kind::Assign, role, node);
      NodeId element = add(id, Kind::Index, Role::Target, node);
      visit(given[0], element, Role::Receiver);
      visit(given[1], element, Role::Argument);
      return true;
    }
    if (text(callee) == "clear" && given.size() == 1) {
      NodeId id = add(parent, Kind::Call, role, node);
      NodeId member = add(id, Kind::Member, Role::Callee, callee);
      build_.setName(member, "clear", begin(callee));
      visit(given[0], member, Role::Receiver);
      return true;
    }
    return false;
  }

  bool ownAssign(TSNode node, NodeId parent, Role role) override {
    TSNode left = field(node, f_.left), right = field(node, f_.right);
    NodeList targets = named(left), given = named(right);
    if (targets.size() < 2) return false;
    bool each = given.size() == targets.size(), handed = false;  // one value for several goes with the first that is named
    for (size_t i = 0; i < targets.size(); ++i) {
      if (text(targets[i]) == "_") {
        if (each) visit(given[i], parent, Role::None);
        continue;
      }
      NodeId id = add(parent, Kind::Assign, role, node);
      visit(targets[i], id, Role::Target);
      if (each) visit(given[i], id, Role::Value);
      else if (!handed && !given.empty()) visit(given[0], id, Role::Value);
      handed = true;
    }
    if (!each && !handed)
      for (TSNode value : given) visit(value, parent, Role::None);
    return true;
  }

  void own(TSNode node, uint8_t tag, NodeId parent, Role role) override {
    switch (tag) {
      case kPackage: break;
      case kImport:
        for (TSNode child : named(node)) importSpecs(child, parent);
        break;
      case kConst_: specs(node, parent, true); break;
      case kVar: specs(node, parent, false); break;
      case kTypeDecl:
        for (TSNode child : named(node))
          if (is(child, "type_spec") || is(child, "type_alias")) typeSpec(child, parent);
        break;
      case kFunction: {
        TSNode name = field(node, f_.name);
        bool init = text(name) == "init";
        NodeId id = function(node, parent, init ? FunctionForm::Initialiser : FunctionForm::Function, text(name), begin(name), visibility(text(name)));
        functionParts(node, id);
        break;
      }
      case kMethod: lowerMethod(node, parent); break;
      case kShort: lowerShort(node, parent, role); break;
      case kComposite: lowerComposite(node, parent, role); break;
      case kFuncLiteral: {
        NodeId id = add(parent, Kind::Lambda, role, node);
        functionParts(node, id);
        break;
      }
      case kIfStmt: lowerIfStmt(node, parent, role); break;
      case kForStmt: lowerForStmt(node, parent, role); break;
      case kIncrement: {
        NodeId id = add(parent, Kind::Update, role, node);
        visit(firstNamed(node), id, Role::Target);
        break;
      }
      case kUnaryExpr: lowerUnaryExpr(node, parent, role); break;
      case kCaseClause: {
        NodeId id = add(parent, Kind::Block, role, node);
        statements(node, id);
        break;
      }
      case kGo: lowerGo(node, parent, role); break;
      case kDefer: visitChildren(node, parent, role); break;
      default: break;
    }
  }

  void lowerMethod(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name), receiver = field(node, f_.receiver);
    TSNode one = isNull(receiver) ? TSNode{} : firstNamed(receiver);
    std::string_view type = trim(text(field(one, f_.type)));
    if (!type.empty() && type[0] == '*') type.remove_prefix(1);
    type = type.substr(0, type.find('['));
    std::string before = receiver_;
    receiver_ = std::string(text(field(one, f_.name)));
    NodeId id = function(node, parent, FunctionForm::Function, std::string(type) + "::" + std::string(text(name)), begin(name), visibility(text(name)));
    functionParts(node, id);
    receiver_ = before;
  }

  void lowerShort(TSNode node, NodeId parent, Role role) {
    NodeList names = named(field(node, f_.left)), given = named(field(node, f_.right));
    bool handed = false;  // one value for several names goes with the first that is named
    for (size_t i = 0; i < names.size(); ++i) {
      bool each = given.size() == names.size();
      if (text(names[i]) == "_") {
        if (each) visit(given[i], parent, Role::None);
        continue;
      }
      TSNode value = each ? given[i] : !handed && !given.empty() ? given[0] : TSNode{};
      handed = true;
      variable(node, parent, role == Role::None ? Role::None : role, names[i], 0, {}, value);
    }
    if (given.size() != names.size() && !handed)
      for (TSNode value : given) visit(value, parent, Role::None);
  }

  void lowerComposite(TSNode node, NodeId parent, Role role) {
    TSNode type = field(node, f_.type);
    bool object = is(type, "type_identifier") || is(type, "qualified_type") || is(type, "generic_type");
    NodeId id = add(parent, object ? Kind::Create : Kind::Collection, role, node);
    typeRef(type, id, Role::Type);
    if (!object) build_.setName(id, is(type, "map_type") ? "map" : "slice", begin(node));
    literalParts(field(node, f_.body), id, object);
  }

  void literalParts(TSNode list, NodeId id, bool object) {
    if (isNull(list)) return;
    for (TSNode element : named(list)) {
      if (!is(element, "keyed_element")) {
        visit(element, id, object ? Role::Argument : Role::Value);
        continue;
      }
      NodeList parts = named(element);
      if (!parts.empty()) visit(parts.back(), id, Role::Value);
      if (!object && parts.size() > 1) visit(parts.front(), id, Role::Value);
    }
  }

  void lowerIfStmt(TSNode node, NodeId parent, Role role) {
    NodeId at = parent;
    TSNode first = field(node, f_.initializer);
    if (!isNull(first)) {
      at = add(parent, Kind::Block, role, node);
      visit(first, at, Role::None);
      role = Role::None;
    }
    NodeId id = add(at, Kind::If, role, node);
    condition(field(node, f_.condition), id, Role::Condition);
    visit(field(node, f_.consequence), id, Role::Then);
    TSNode otherwise = field(node, f_.alternative);
    if (!isNull(otherwise)) visit(otherwise, id, Role::Else);
  }

  void lowerForStmt(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Loop, role, node);
    for (TSNode child : named(node)) {
      if (is(child, "range_clause")) {
        TSNode left = field(child, f_.left);
        if (!isNull(left)) {
          NodeList names = named(left);
          TSNode item = names.empty() ? TSNode{} : names.back();
          if (is(item, "identifier") && text(item) != "_") {
            NodeId local = add(id, Kind::Variable, Role::None, item);
            build_.setName(local, text(item), begin(item));
          }
        }
        visit(field(child, f_.right), id, Role::Operand);
      } else if (is(child, "for_clause")) {
        for (TSNode part : {field(child, f_.initializer), field(child, f_.update)})
          if (!isNull(part)) visit(part, id, Role::None);
        TSNode test = field(child, f_.condition);
        if (!isNull(test)) condition(test, id, Role::Condition);
      } else if (!is(child, "block")) {
        condition(child, id, Role::Condition);
      }
    }
    visit(field(node, f_.body), id, Role::Body);
  }

  void lowerUnaryExpr(TSNode node, NodeId parent, Role role) {
    std::string_view op = operatorOf(node);
    TSNode operand = field(node, f_.operand);
    if (op == "&" && is(operand, "composite_literal")) {
      NodeId before = static_cast<NodeId>(file_.nodes.size());
      visit(operand, parent, role);
      if (file_[before].kind == Kind::Create) build_[before].detail = static_cast<uint8_t>(CreateForm::Heap);
      return;
    }
    if (op == "!") {
      NodeId id = add(parent, Kind::Logic, role, node);
      build_[id].detail = static_cast<uint8_t>(LogicForm::Not);
      visit(operand, id, Role::Operand);
      return;
    }
    NodeId id = add(parent, op == "&" ? Kind::AddressOf : op == "*" ? Kind::Dereference : Kind::Other, role, node);
    visit(operand, id, Role::Operand);
  }

  void lowerGo(TSNode node, NodeId parent, Role role) {
    // go f(x): f runs on a thread of its own.
    NodeId id = add(parent, Kind::Call, role, node);
    NodeId name = add(id, Kind::Name, Role::Callee, node);
    build_.setName(name, "go", begin(node));
    TSNode call = firstNamed(node);
    TSNode callee = is(call, "call_expression") ? field(call, f_.function) : call;
    visit(is(callee, "func_literal") ? callee : call, id, Role::Argument);
  }

  void importSpecs(TSNode node, NodeId parent) {
    if (is(node, "import_spec_list")) {
      for (TSNode child : named(node)) importSpecs(child, parent);
      return;
    }
    if (!is(node, "import_spec")) return;
    std::string_view quoted = text(field(node, f_.path));
    if (quoted.size() < 2) return;
    std::string path(quoted.substr(1, quoted.size() - 2)), target;
    for (char c : path) target += c == '/' ? std::string("::") : std::string(1, c);
    NodeId import = add(parent, Kind::Import, Role::None, node);
    build_.setName(import, target, begin(node));
    TSNode name = field(node, f_.name);
    if (text(name) == "_") return;
    if (text(name) == ".") {
      NodeId id = add(parent, Kind::Using, Role::None, node);
      build_.setName(id, target, begin(node));
      build_[id].modifiers |= kWholeScope;
      return;
    }
    NodeId id = add(parent, Kind::Using, Role::None, node);
    std::string last = std::string(lastPart(target));
    build_.setName(id, isNull(name) ? std::string_view(last) : text(name), begin(node));
    NodeId ref = add(id, Kind::TypeRef, Role::Type, node);
    build_.setName(ref, target, begin(node));
  }

  NodeId home_ = 0;
  int functionDepth_ = 0;
  std::string receiver_;
};

}  // namespace

Language goLanguage() {
  static constexpr std::string_view kExtensions[] = {".go"};
  static constexpr QuoteForm kQuotes[] = {{"`", false, true}, {"\""}, {"'"}};
  static constexpr CommentForm kComments{kQuotes};
  Language language;
  language.id = "go";
  language.name = "Go";
  language.extensions = kExtensions;
  language.separator = ".";
  language.dotted = true;
  language.bareMembers = false;
  language.importsInFileOnly = true;
  language.modulesByFolder = true;
  language.testFileEnding = "_test.go";  // cmd/go, "Test packages": a program is built without them
  language.testImports = {"testing"};
  language.modulesByName = true;
  language.guarantees = &goGuarantees();
  language.mending = &goMending();
  language.facing = &goFacing();
  language.settling = &goSettling();
  language.announcing = &goAnnouncing();
  language.sound = &goSound();
  language.comments = &kComments;
  language.lower = [](std::string_view text, const Language::TreeLore*, LoweredFile& out) { GoLowerer(grammar(), text, out).run(); };
  language.parseOnly = [](std::string_view text) { parseOnlyWith(grammar(), text); };
  language.grammar = tree_sitter_go;
  language.writer = goWriter;
  language.harness = goHarness;
  return language;
}

}  // namespace elmcart
