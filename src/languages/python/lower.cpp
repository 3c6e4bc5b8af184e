// Lowers a Python file. Sections are of the Python Language Reference, 3.11.
#include <map>

#include "base/text.h"
#include "languages/python/python.h"
#include "languages/shared/module_scope.h"

extern "C" const TSLanguage* tree_sitter_python(void);

namespace elmcart {
namespace {

enum Own : uint8_t { kImport, kImportFrom, kClass, kFunction, kDecorated, kWith, kKeyword, kDelete, kAssert, kDict, kList, kSet, kNamed, kExcept, kElse, kElif, kMatch };

constexpr ShapeRow kRows[] = {
    {"comment", Shape::Comment}, {"import_statement", Shape::Own, kImport}, {"import_from_statement", Shape::Own, kImportFrom}, {"future_import_statement", Shape::Skip},
    {"class_definition", Shape::Own, kClass}, {"function_definition", Shape::Own, kFunction}, {"decorated_definition", Shape::Own, kDecorated}, {"decorator", Shape::Skip},
    {"expression_statement", Shape::Statement}, {"assignment", Shape::Assign}, {"augmented_assignment", Shape::Compound}, {"named_expression", Shape::Own, kNamed},
    {"block", Shape::Block}, {"if_statement", Shape::If}, {"elif_clause", Shape::Own, kElif}, {"else_clause", Shape::Own, kElse}, {"for_statement", Shape::Loop}, {"while_statement", Shape::Loop},
    {"try_statement", Shape::Try}, {"except_clause", Shape::Own, kExcept}, {"except_group_clause", Shape::Own, kExcept}, {"finally_clause", Shape::Own, kExcept}, {"with_statement", Shape::Own, kWith},
    {"return_statement", Shape::Return}, {"raise_statement", Shape::Throw}, {"global_statement", Shape::Skip}, {"nonlocal_statement", Shape::Skip},
    {"pass_statement", Shape::Skip}, {"break_statement", Shape::Jump}, {"continue_statement", Shape::Jump}, {"delete_statement", Shape::Own, kDelete}, {"assert_statement", Shape::Own, kAssert},
    {"call", Shape::Call}, {"keyword_argument", Shape::Own, kKeyword}, {"attribute", Shape::Member}, {"subscript", Shape::Index}, {"identifier", Shape::Name},
    {"none", Shape::Null}, {"true", Shape::Boolean}, {"false", Shape::Boolean}, {"integer", Shape::Number}, {"float", Shape::Number}, {"string", Shape::Text}, {"concatenated_string", Shape::Text}, {"interpolation", Shape::Pass},
    {"comparison_operator", Shape::Binary}, {"boolean_operator", Shape::Binary}, {"binary_operator", Shape::Binary}, {"not_operator", Shape::Unary}, {"unary_operator", Shape::Unary},
    {"conditional_expression", Shape::Conditional}, {"lambda", Shape::Lambda}, {"list", Shape::Own, kList}, {"tuple", Shape::Collection}, {"set", Shape::Own, kSet}, {"dictionary", Shape::Own, kDict}, {"pair", Shape::Pass},
    {"list_comprehension", Shape::Own, kList}, {"dictionary_comprehension", Shape::Own, kDict}, {"set_comprehension", Shape::Own, kSet}, {"await", Shape::Await}, {"parenthesized_expression", Shape::Paren},
    {"expression_list", Shape::Collection}, {"pattern_list", Shape::Collection}, {"tuple_pattern", Shape::Collection}, {"list_pattern", Shape::Collection}, {"type", Shape::Skip}, {"match_statement", Shape::Switch}, {"case_clause", Shape::Own, kMatch}, {"case_pattern", Shape::Skip},
    {"type_alias_statement", Shape::Skip}, {"line_continuation", Shape::Skip}, {"ellipsis", Shape::Skip}, {"as_pattern", Shape::Pass}, {"as_pattern_target", Shape::Skip},
};

constexpr std::string_view kValueTypes[] = {"int", "float", "bool", "str", "bytes", "complex"};
constexpr std::string_view kNullWords[] = {"None"};

const SharedGrammar& grammar() {
  static const SharedGrammar kGrammar([] {
    GrammarSpec spec;
    spec.grammar = tree_sitter_python;
    spec.rows = kRows;
    spec.valueTypes = kValueTypes;
    spec.nullWords = kNullWords;
    spec.lockCalls = true;
    spec.truthiness = true;
    spec.typeArguments = '[';
    return spec;
  }());
  return kGrammar;
}

class PythonLowerer : public ModuleLowerer {
 public:
  using ModuleLowerer::ModuleLowerer;

 private:
  struct ClassFrame {
    std::string name;
    NodeId node = kNoNode;
    std::set<std::string> byClass, byObject;  // attributes assigned through the class, through an object
    std::set<std::string> byInit;             // through the object that is made
  };
  struct FunctionFrame {
    std::set<std::string> declared, elsewhere;  // locals so far; names of other scopes
    std::string self, cls;
    NodeId block = kNoNode;
    bool cached = false;
  };

  void unit(TSNode root) override {
    openModule(root, "__init__");
    // 4.2.2: a name bound anywhere in the module's blocks is the module's, and so
    // is one that a function declares global.
    std::set<std::string> nested;
    for (TSNode child : named(root)) {
      // What a file does when it is the program itself is nobody else's.
      if (is(child, "if_statement") && text(field(child, f_.condition)).find("__name__") != std::string_view::npos) continue;
      assignedNames(child, nested, false);
    }
    std::set<std::string> direct, globals;
    for (TSNode child : named(root))
      if (TSNode name = simpleTarget(child); !isNull(name)) direct.insert(std::string(text(name)));
    globalNames(root, globals, 0);
    for (const std::set<std::string>* names : {&nested, &globals})
      for (const std::string& name : *names)
        if (!direct.count(name) && moduleNames_.insert(name).second) {
          NodeId id = build_.add(module_, Kind::Variable, Role::Member, firstPlace_.count(name) ? firstPlace_[name] : Span{0, 0});
          build_.setName(id, name, build_[id].span.begin);
          build_[id].modifiers = kDefinition | visibility(name);
        }
    attributesGivenLater(root);
    for (TSNode child : named(root)) {
      Shape shape = g_.shapeOf(child);
      bool declares = shape == Shape::Own && (g_.ownOf(child) == kImport || g_.ownOf(child) == kImportFrom || g_.ownOf(child) == kClass || g_.ownOf(child) == kFunction || g_.ownOf(child) == kDecorated);
      TSNode target = simpleTarget(child);
      if (!isNull(target) && moduleNames_.insert(std::string(text(target))).second) {
        TSNode assignment = firstNamed(child);
        std::string name(text(target));
        variable(assignment, module_, Role::Member, target, visibility(name), typeOf(assignment), field(assignment, f_.right));
      } else if (declares) {
        visit(child, module_, Role::None);
      } else if (shape == Shape::Comment) {
        visit(child, module_, Role::None);
      } else if (!isDocumentation(child)) {
        visit(child, moduleBody(root), Role::None);
      }
    }
  }

  // Class.name = … among the module's statements: an attribute of that class.
  void attributesGivenLater(TSNode root) {
    std::set<std::string_view> classes;
    for (TSNode child : named(root)) {
      TSNode definition = is(child, "decorated_definition") ? field(child, f_.definition) : child;
      if (is(definition, "class_definition")) classes.insert(text(field(definition, f_.name)));
      TSNode assignment = g_.shapeOf(child) == Shape::Statement ? firstNamed(child) : TSNode{};
      TSNode left = is(assignment, "assignment") ? field(assignment, f_.left) : TSNode{};
      if (!is(left, "attribute") || !classes.count(text(field(left, f_.object)))) continue;
      TSNode attribute = field(left, f_.attribute);
      givenLater_[std::string(text(field(left, f_.object)))].emplace(text(attribute), spanOf(attribute));
    }
  }

  bool isDocumentation(TSNode statement) {
    TSNode only = firstNamed(statement);
    return g_.shapeOf(statement) == Shape::Statement && !isNull(only) && g_.shapeOf(only) == Shape::Text;
  }

  uint32_t visibility(std::string_view name) const {
    bool hidden = name.size() > 1 && name[0] == '_' && !(name.size() > 4 && name.substr(0, 2) == "__" && name.substr(name.size() - 2) == "__");
    return hidden ? kPrivate : kPublic;  // by convention only: other modules can name it
  }

  TSNode typeOf(TSNode assignment) const { return field(assignment, f_.type); }

  // `name = value` or `name: type [= value]` as a statement: the name.
  TSNode simpleTarget(TSNode statement) {
    if (g_.shapeOf(statement) != Shape::Statement) return {};
    TSNode assignment = firstNamed(statement);
    if (isNull(assignment) || !is(assignment, "assignment")) return {};
    TSNode left = field(assignment, f_.left);
    return is(left, "identifier") ? left : TSNode{};
  }

  // Names that assignments inside compound statements bind, not looking into
  // functions and classes; with `direct`, those of plain statements too.
  void assignedNames(TSNode node, std::set<std::string>& out, bool direct) {
    if (is(node, "function_definition") || is(node, "class_definition") || is(node, "lambda")) return;
    if (is(node, "assignment") || is(node, "named_expression") || is(node, "for_statement")) {
      TSNode left = is(node, "named_expression") ? field(node, f_.name) : field(node, f_.left);
      if (is(left, "identifier")) {
        if (direct) note(left, out);
      } else if (is(left, "pattern_list") || is(left, "tuple_pattern")) {
        for (TSNode part : named(left))
          if (is(part, "identifier")) note(part, out);
      }
    }
    if (is(node, "as_pattern_target"))
      for (TSNode part : named(node))
        if (is(part, "identifier")) note(part, out);
    bool compound = g_.shapeOf(node) == Shape::Block || direct || is(node, "for_statement") || is(node, "with_statement");
    if (++depth_ < 300)
      for (TSNode child : named(node)) assignedNames(child, out, compound);
    --depth_;
  }
  void note(TSNode name, std::set<std::string>& out) {
    std::string word(text(name));
    firstPlace_.emplace(word, spanOf(name));
    out.insert(std::move(word));
  }

  // Names declared global in functions and assigned there.
  void globalNames(TSNode node, std::set<std::string>& out, int depth) {
    if (depth > 300) return;
    if (is(node, "global_statement"))
      for (TSNode name : named(node)) pendingGlobals_.insert(std::string(text(name)));
    if (is(node, "assignment") || is(node, "augmented_assignment")) {
      TSNode left = field(node, f_.left);
      if (is(left, "identifier") && pendingGlobals_.count(std::string(text(left)))) note(left, out);
    }
    bool scope = is(node, "function_definition");
    std::set<std::string> before = pendingGlobals_;
    for (TSNode child : named(node)) globalNames(child, out, depth + 1);
    if (scope) pendingGlobals_ = before;
  }

  void namesOf(TSNode node, std::string_view statement, std::set<std::string>& out, int depth = 0) {
    if (depth > 300) return;
    if (is(node, statement))
      for (TSNode name : named(node)) out.insert(std::string(text(name)));
    for (TSNode child : named(node))
      if (!is(child, "function_definition") && !is(child, "class_definition")) namesOf(child, statement, out, depth + 1);
  }

  // ----- attributes of classes

  // x.NAME = …: through which of the class's own names?
  void attributesIn(TSNode node, const std::string& self, const std::string& cls, ClassFrame& frame, int depth = 0) {
    if (depth > 300) return;
    if (is(node, "assignment") || is(node, "augmented_assignment")) {
      TSNode left = field(node, f_.left);
      std::vector<TSNode> targets = is(left, "pattern_list") || is(left, "tuple_pattern") ? named(left) : std::vector<TSNode>{left};
      for (TSNode target : targets) {
        if (!is(target, "attribute")) continue;
        std::string_view object = text(field(target, f_.object));
        std::string name(text(field(target, f_.attribute)));
        bool ofClass = object == frame.name || (!cls.empty() && object == cls) || object == "type(" + self + ")" || object == self + ".__class__";
        if (ofClass) frame.byClass.insert(name), attributePlace_.emplace(name, spanOf(field(target, f_.attribute)));
        else if (!self.empty() && object == self) frame.byObject.insert(name), attributePlace_.emplace(name, spanOf(field(target, f_.attribute)));
      }
    }
    // self.__dict__.update(name=…)
    if (is(node, "call") && !self.empty() && text(field(node, f_.function)) == self + ".__dict__.update")
      for (TSNode given : named(field(node, f_.arguments)))
        if (is(given, "keyword_argument")) frame.byObject.insert(std::string(text(field(given, f_.name)))), attributePlace_.emplace(text(field(given, f_.name)), spanOf(field(given, f_.name)));
    for (TSNode child : named(node)) attributesIn(child, self, cls, frame, depth + 1);
  }

  // 8.7: what decorates a function or class of the module, or a method of such a class, is called with it while the module is
  // loaded. What the language and its library do to a method is told by its own facts.
  void decorate(TSNode node, NodeId parent) {
    if (functionDepth_ > 0) return;
    TSNode name = field(field(node, f_.definition), f_.name);
    for (TSNode child : named(node)) {
      TSNode by = is(child, "decorator") ? firstNamed(child) : TSNode{};
      if (isNull(by) || isNull(name)) continue;
      if (parent != module_ && (is(by, "attribute") || kBuiltInDecorators.count(text(by)))) continue;
      NodeId statement = add(moduleBody(node), Kind::ExpressionStatement, Role::None, child);
      NodeId call = add(statement, Kind::Call, Role::None, child);
      visit(by, call, Role::Callee);
      if (parent == module_) addName(call, Role::Argument, name);
    }
  }

  // Library Reference, "Built-in Functions" and `functools`, `abc`, `contextlib`.
  static inline const std::set<std::string_view> kBuiltInDecorators = {"abstractmethod", "cached_property", "classmethod", "contextmanager", "lru_cache", "override", "overload", "property", "staticmethod", "total_ordering", "wraps"};

  struct Decorators {
    bool isStatic = false, isClass = false, getter = false, setter = false, cached = false, abstractOne = false, dataclass = false;
  };
  Decorators decorators(TSNode node) {
    Decorators out;
    TSNode up = ts_node_parent(node);
    if (!is(up, "decorated_definition")) return out;
    for (TSNode child : named(up)) {
      if (!is(child, "decorator")) continue;
      std::string_view name = trim(text(child).substr(1));
      name = name.substr(0, name.find('('));
      std::string_view last = name.substr(name.rfind('.') == std::string_view::npos ? 0 : name.rfind('.') + 1);
      if (last == "staticmethod") out.isStatic = true;
      else if (last == "classmethod") out.isClass = true;
      else if (last == "property" || last == "cached_property") out.getter = true;
      else if (last == "setter" || last == "deleter") out.setter = true;
      else if (last == "lru_cache" || last == "cache") out.cached = true;
      else if (last == "abstractmethod") out.abstractOne = true;
      else if (last == "dataclass" || last == "attrs" || last == "define" || last == "frozen" || last == "mutable" || name == "attr.s") out.dataclass = true;
    }
    return out;
  }

  std::string firstParameter(TSNode function) {
    TSNode list = field(function, f_.parameters);
    TSNode first = isNull(list) ? TSNode{} : firstNamed(list);
    if (isNull(first)) return "";
    if (is(first, "identifier")) return std::string(text(first));
    TSNode name = field(first, f_.name);
    if (isNull(name)) name = firstNamed(first);
    return std::string(text(name));
  }

  void classDefinition(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name), inner = field(node, f_.body);
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    build_[id].modifiers = kDefinition | kPublic;
    build_.setName(id, text(name), begin(name));
    annotate(is(ts_node_parent(node), "decorated_definition") ? ts_node_parent(node) : node, id);
    TSNode bases = field(node, f_.superclasses);
    bool isEnum = false;
    if (!isNull(bases))
      for (TSNode base : named(bases)) {
        if (is(base, "keyword_argument")) {
          // 3.3.3.1: the class is made, and called, through its metaclass.
          if (text(field(base, f_.name)) == "metaclass") build_.setName(add(id, Kind::Name, Role::Annotation, base), scoped(text(field(base, f_.value))), begin(field(base, f_.value)));
          continue;
        }
        std::string_view written = text(base);
        isEnum |= written == "Enum" || written == "IntEnum" || written == "enum.Enum" || written == "StrEnum" || written == "enum.IntEnum" || written == "Flag" || written == "IntFlag";
        if (written == "object") continue;
        if (NodeId ref = typeRef(base, id, Role::Base); ref != kNoNode) build_[ref].modifiers = kPublic;
      }
    if (isEnum) build_[id].detail = static_cast<uint8_t>(TypeForm::Enum);
    ClassFrame frame;
    frame.name = text(name);
    frame.node = id;
    attributePlace_.clear();
    if (auto later = givenLater_.find(frame.name); later != givenLater_.end() && functionDepth_ == 0)
      for (const auto& [attribute, place] : later->second) frame.byClass.insert(attribute), attributePlace_.emplace(attribute, place);
    for (TSNode child : named(inner)) {
      TSNode definition = is(child, "decorated_definition") ? field(child, f_.definition) : child;
      if (!is(definition, "function_definition")) continue;
      Decorators how = decorators(definition);
      std::string first = firstParameter(definition);
      bool ofClass = how.isClass || text(field(definition, f_.name)) == "__new__";
      attributesIn(field(definition, f_.body), ofClass || how.isStatic ? "" : first, ofClass ? first : "", frame);
      if (text(field(definition, f_.name)) == "__init__") {
        ClassFrame made;
        attributesIn(field(definition, f_.body), first, "", made);
        frame.byInit = made.byObject;
      }
    }
    std::map<std::string, Span> places = attributePlace_;
    bool dataclass = decorators(node).dataclass;
    classes_.push_back(frame);
    ++classDepth_;
    std::set<std::string> declared;
    for (TSNode child : named(inner)) {
      TSNode target = simpleTarget(child);
      if (!isNull(target)) {
        TSNode assignment = firstNamed(child);
        std::string attribute(text(target));
        if (!declared.insert(attribute).second) continue;
        bool bare = isNull(field(assignment, f_.right));
        // A container that every object fills before it may get one of its own is the class's.
        bool filled = isContainer(field(assignment, f_.right)) && !frame.byInit.count(attribute);
        bool ofObject = !frame.byClass.count(attribute) && ((frame.byObject.count(attribute) && !filled) || dataclass || bare);
        uint32_t bits = visibility(attribute) | (ofObject ? 0u : uint32_t{kStatic}) | (isEnum ? uint32_t{kConst} : 0u);
        variable(assignment, id, Role::Member, target, bits, typeOf(assignment), field(assignment, f_.right));
      } else if (!isDocumentation(child)) {
        visit(child, id, Role::None);
      }
    }
    for (bool ofClass : {true, false})
      for (const std::string& attribute : ofClass ? frame.byClass : frame.byObject) {
        if (!declared.insert(attribute).second) continue;
        NodeId member = build_.add(id, Kind::Variable, Role::Member, places[attribute]);
        build_.setName(member, attribute, places[attribute].begin);
        build_[member].modifiers = visibility(attribute) | (ofClass ? kStatic | kDefinition : 0u);
      }
    --classDepth_;
    classes_.pop_back();
  }

  bool isContainer(TSNode value) const {
    if (isNull(value)) return false;
    if (is(value, "dictionary") || is(value, "list") || is(value, "set")) return true;
    std::string_view callee = is(value, "call") ? text(field(value, f_.function)) : std::string_view{};
    return callee == "dict" || callee == "list" || callee == "set" || callee == "defaultdict" || callee == "collections.defaultdict" || callee == "OrderedDict";
  }

  void functionDefinition(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name), inner = field(node, f_.body);
    bool method = file_[parent].kind == Kind::Type;
    if (functionDepth_ > 0 && !method) return nestedFunction(node, parent);
    Decorators how = decorators(node);
    std::string_view word = text(name);
    FunctionForm form = FunctionForm::Function;
    if (method && word == "__init__") form = FunctionForm::Constructor;
    else if (method && word == "__new__") form = FunctionForm::Factory;
    else if (method && word == "__del__") form = FunctionForm::Destructor;
    else if (how.getter) form = FunctionForm::Getter;
    else if (how.setter) form = FunctionForm::Setter;
    bool ofClass = how.isClass || (method && word == "__new__");
    uint32_t bits = kDefinition | visibility(word) | (method && (how.isStatic || ofClass) ? kStatic : 0u) | (how.abstractOne ? kAbstract : 0u);
    if (!method) bits &= ~uint32_t{kStatic};
    NodeId id = function(node, parent, form, word, begin(name), bits);
    FunctionFrame frame;
    if (method && !how.isStatic) (ofClass ? frame.cls : frame.self) = firstParameter(node);
    frame.cached = how.cached;
    typeRef(field(node, f_.returnType), id, Role::Type);
    bool skip = method && !how.isStatic;
    TSNode list = field(node, f_.parameters);
    size_t count = 0;
    if (!isNull(list))
      for (TSNode child : named(list)) {
        if (g_.shapeOf(child) == Shape::Comment || is(child, "keyword_separator") || is(child, "positional_separator")) continue;
        if (skip) {
          skip = false;
          continue;
        }
        ++count;
        parameter(child, id);
        frame.declared.insert(std::string(file_.name(static_cast<NodeId>(lastParameter_))));
      }
    frame.cached &= count == 0;
    scope(inner, id, std::move(frame));
  }

  // The body of a function as a scope of its own: 4.2.2, a name assigned anywhere in it is local.
  void scope(TSNode inner, NodeId parent, FunctionFrame frame) {
    namesOf(inner, "global_statement", frame.elsewhere);
    namesOf(inner, "nonlocal_statement", frame.elsewhere);
    int outerClass = classDepth_;
    classDepth_ = 0;
    ++functionDepth_;
    NodeId block = add(parent, Kind::Block, Role::Body, inner);
    frame.block = block;
    std::set<std::string> nested, direct;
    firstPlace_.clear();
    for (TSNode child : named(inner)) {
      assignedNames(child, nested, false);
      if (TSNode target = simpleTarget(child); !isNull(target)) direct.insert(std::string(text(target)));
    }
    for (const std::string& name : nested) {
      if (direct.count(name) || frame.elsewhere.count(name) || !frame.declared.insert(name).second) continue;
      NodeId local = build_.add(block, Kind::Variable, Role::None, firstPlace_[name]);
      build_.setName(local, name, firstPlace_[name].begin);
      build_[local].modifiers = kDefinition;
    }
    functions_.push_back(std::move(frame));
    if (functions_.back().cached) cachedBody(inner, block);
    else statements(inner, block);
    functions_.pop_back();
    --functionDepth_;
    classDepth_ = outerClass;
  }

  // A memoised factory without arguments keeps its first result: a static local.
  void cachedBody(TSNode inner, NodeId block) {
    for (TSNode child : named(inner)) {
      TSNode value = is(child, "return_statement") ? firstNamed(child) : TSNode{};
      if (isNull(value)) {
        visit(child, block, Role::None);
        continue;
      }
      NodeId memo = add(block, Kind::Variable, Role::None, child);
      build_.setName(memo, "remembered", begin(child));
      build_[memo].modifiers = kStatic | kDefinition;
      visit(value, memo, Role::Initialiser);
      NodeId result = add(block, Kind::Return, Role::None, child);
      NodeId name = add(result, Kind::Name, Role::Value, child);
      build_.setName(name, "remembered", begin(child));
    }
  }

  // A function inside a function is a value that closes over the names around it.
  void nestedFunction(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name);
    NodeId id = add(parent, Kind::Variable, Role::None, node);
    build_.setName(id, text(name), begin(name));
    build_[id].modifiers = kDefinition | kConst;
    NodeId lambda = add(id, Kind::Lambda, Role::Initialiser, node);
    FunctionFrame frame;
    if (!functions_.empty()) {
      frame.self = functions_.back().self;
      frame.cls = functions_.back().cls;
      functions_.back().declared.insert(std::string(text(name)));
    }
    TSNode list = field(node, f_.parameters);
    if (!isNull(list))
      for (TSNode child : named(list)) {
        if (g_.shapeOf(child) == Shape::Comment || is(child, "keyword_separator") || is(child, "positional_separator")) continue;
        parameter(child, lambda);
        frame.declared.insert(std::string(file_.name(static_cast<NodeId>(lastParameter_))));
      }
    scope(field(node, f_.body), lambda, std::move(frame));
  }

  void parameter(TSNode node, NodeId fn) override {
    NodeId id = add(fn, Kind::Parameter, Role::Parameter, node);
    lastParameter_ = id;
    TSNode name = field(node, f_.name), value = field(node, f_.value);
    bool splat = is(node, "list_splat_pattern") || is(node, "dictionary_splat_pattern");
    if (isNull(name)) name = is(node, "identifier") ? node : firstNamed(node);
    if (isNull(name)) name = node;
    if (splat || is(name, "list_splat_pattern") || is(name, "dictionary_splat_pattern")) {
      build_[id].modifiers |= kPack;
      if (TSNode inside = firstNamed(name); !isNull(inside) && !is(name, "identifier")) name = inside;
    }
    build_.setName(id, text(name), begin(name));
    typeRef(field(node, f_.type), id, Role::Type);
    if (!isNull(value)) visit(value, id, Role::Initialiser);
  }

  // ----- names and calls

  bool isSelf(std::string_view word) const { return !functions_.empty() && !functions_.back().self.empty() && word == functions_.back().self; }
  bool isCls(std::string_view word) const { return !functions_.empty() && !functions_.back().cls.empty() && word == functions_.back().cls; }
  void className(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Name, role, node);
    build_.setName(id, classes_.empty() ? std::string_view("cls") : std::string_view(classes_.back().name), begin(node));
  }

  bool ownName(TSNode node, NodeId parent, Role role) override {
    std::string_view word = text(node);
    if (isSelf(word)) {
      add(parent, Kind::This, role, node);
      return true;
    }
    if (isCls(word)) {
      className(node, parent, role);
      return true;
    }
    return false;
  }

  bool ownMember(TSNode node, NodeId parent, Role role) override {
    if (text(field(node, f_.attribute)) != "__class__" || !isSelf(text(field(node, f_.object)))) return false;
    className(node, parent, role);
    return true;
  }

  bool ownCall(TSNode node, NodeId parent, Role role) override {
    TSNode callee = field(node, f_.function), list = field(node, f_.arguments);
    std::string_view word = text(callee);
    NodeList given = named(list);
    // typing.cast(T, x) is x.
    if ((word == "cast" || word == "typing.cast") && given.size() == 2) {
      visit(given[1], parent, role);
      return true;
    }
    // 3.3.1: object.__new__(cls) makes the object.
    if (word == "super().__new__" || word == "object.__new__" || word == "super(" + (classes_.empty() ? std::string() : classes_.back().name) + ", cls).__new__") {
      NodeId id = add(parent, Kind::Create, role, node);
      build_[id].detail = static_cast<uint8_t>(CreateForm::Heap);
      build_[id].modifiers |= kVirtual;
      typeRefNamed(classes_.empty() ? "object" : classes_.back().name, node, id, Role::Type, false);
      return true;
    }
    // cls(): of the class that the method is called on, which may be a subclass.
    if (isCls(word)) {
      NodeId id = add(parent, Kind::Call, role, node);
      build_[id].modifiers |= kVirtual;
      className(callee, id, Role::Callee);
      arguments(list, id);
      return true;
    }
    if (word == "type" && given.size() == 1 && isSelf(text(given[0]))) {
      className(node, parent, role);
      return true;
    }
    // self.__dict__.update(name=value): each is an assignment to self.name.
    constexpr std::string_view kUpdate = ".__dict__.update";
    if (word.ends_with(kUpdate) && isSelf(word.substr(0, word.size() - kUpdate.size()))) {
      NodeId all = add(parent, Kind::Collection, role, node);
      for (TSNode one : given) {
        if (!is(one, "keyword_argument")) {
          visit(one, all, Role::Operand);
          continue;
        }
        NodeId id = add(all, Kind::Assign, Role::Operand, one);
        NodeId member = add(id, Kind::Member, Role::Target, field(one, f_.name));
        build_.setName(member, text(field(one, f_.name)), begin(field(one, f_.name)));
        visit(field(field(callee, f_.object), f_.object), member, Role::Receiver);
        visit(field(one, f_.value), id, Role::Value);
      }
      return true;
    }
    if (word == "super") {
      add(parent, Kind::Other, role, node);
      return true;
    }
    // hasattr(x, "name"): is there anything in x.name?
    if (word == "hasattr" && given.size() == 2 && g_.shapeOf(given[1]) == Shape::Text) {
      std::string_view name = text(given[1]);
      if (name.size() > 2) {
        NodeId id = add(parent, Kind::NullTest, role, node);
        build_[id].detail = static_cast<uint8_t>(NullTestForm::IsNotNull);
        NodeId member = add(id, Kind::Member, Role::Operand, given[1]);
        build_.setName(member, name.substr(1, name.size() - 2), begin(given[1]) + 1);
        visit(given[0], member, Role::Receiver);
        return true;
      }
    }
    return false;
  }

  bool ownAssign(TSNode node, NodeId parent, Role role) override {
    TSNode left = field(node, f_.left), right = field(node, f_.right);
    if (isNull(right)) return true;  // an annotation alone
    if (is(left, "attribute") && text(field(left, f_.attribute)) == "__dict__") {
      // 3.2: the object's attributes are kept in that dictionary from here on.
      NodeId id = add(parent, Kind::Assign, role, node);
      visit(left, id, Role::Target);
      visit(right, add(id, Kind::AddressOf, Role::Value, node), Role::Operand);
      return true;
    }
    if (!is(left, "identifier")) return false;
    std::string name(text(left));
    if (functions_.empty()) return false;
    FunctionFrame& frame = functions_.back();
    if (frame.elsewhere.count(name) || frame.declared.count(name)) return false;
    frame.declared.insert(name);
    // The statement around it is left empty.
    variable(node, parent, role, left, 0, typeOf(node), right);
    return true;
  }

  void own(TSNode node, uint8_t tag, NodeId parent, Role role) override {
    switch (tag) {
      case kImport:
        for (TSNode name : named(node)) {
          bool renamed = is(name, "aliased_import");
          TSNode path = renamed ? field(name, f_.name) : name;
          import(node, scoped(text(path)), renamed ? text(field(name, f_.alias)) : std::string_view{});
        }
        break;
      case kImportFrom: lowerImportFrom(node, parent); break;
      case kClass: classDefinition(node, functionDepth_ == 0 && classDepth_ == 0 ? module_ : parent); break;
      case kFunction: functionDefinition(node, functionDepth_ == 0 && classDepth_ == 0 ? module_ : parent); break;
      case kDecorated:
        visit(field(node, f_.definition), parent, role);
        decorate(node, parent);
        break;
      case kElse: visit(field(node, f_.body), parent, role); break;
      case kElif: {
        NodeId id = add(parent, Kind::If, role, node);
        condition(field(node, f_.condition), id, Role::Condition);
        visit(field(node, f_.consequence), id, Role::Then);
        break;
      }
      case kExcept: lowerExcept(node, parent, role); break;
      case kMatch: {
        for (TSNode child : named(node))
          if (g_.shapeOf(child) == Shape::Block) visit(child, parent, role);
        break;
      }
      case kWith: lowerWith(node, parent, role); break;
      case kKeyword: visit(field(node, f_.value), parent, role); break;
      case kDelete: {
        for (TSNode child : named(node)) {
          NodeId id = add(parent, Kind::Assign, role, child);
          visit(child, id, Role::Target);
        }
        break;
      }
      case kAssert: {
        NodeId id = add(parent, Kind::Call, role, node);
        NodeId name = add(id, Kind::Name, Role::Callee, node);
        build_.setName(name, "assert", begin(node));
        for (TSNode child : named(node)) condition(child, id, Role::Argument);
        break;
      }
      case kNamed: {
        NodeId id = add(parent, Kind::Assign, role, node);
        visit(field(node, f_.name), id, Role::Target);
        visit(field(node, f_.value), id, Role::Value);
        break;
      }
      case kDict: case kList: case kSet: {
        NodeId id = add(parent, Kind::Collection, role, node);
        build_.setName(id, tag == kDict ? "dict" : tag == kList ? "list" : "set", begin(node));
        // [make(x) for x in table]: what is made there is made many times.
        bool turns = !isNull(childOfType(node, "for_in_clause"));
        visitChildren(node, turns ? add(id, Kind::Loop, Role::Value, node) : id, Role::Value);
        break;
      }
      default: break;
    }
  }

  void lowerImportFrom(TSNode node, NodeId parent) {
    TSNode module = field(node, f_.moduleName);
    std::string path = modulePath(module);
    bool first = true;
    for (TSNode name : named(node)) {
      if (first) {
        first = false;
        continue;
      }
      if (is(name, "wildcard_import")) {
        NodeId id = add(homeOf(parent), Kind::Using, Role::None, node);
        build_.setName(id, path, begin(node));
        build_[id].modifiers |= kWholeScope | kPublic;  // 7.11: they are the module's names from here on
        continue;
      }
      bool renamed = is(name, "aliased_import");
      TSNode item = renamed ? field(name, f_.name) : name;
      import(node, (path.empty() ? "" : path + "::") + scoped(text(item)), renamed ? text(field(name, f_.alias)) : text(item));
    }
  }

  // except Wrong as error: … (8.4.1): the name stands for what was caught, as long as the clause is run.
  void lowerExcept(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Block, role, node);
    for (TSNode child : named(node)) {
      if (g_.shapeOf(child) == Shape::Block) {
        visit(child, id, Role::Body);
      } else if (is(child, "as_pattern")) {
        TSNode target = childOfType(child, "as_pattern_target");
        TSNode name = isNull(target) ? TSNode{} : firstNamed(target);
        visit(firstNamed(child), id, Role::None);
        if (!is(name, "identifier")) continue;
        TSNode type = firstNamed(child);
        bool told = is(type, "identifier") || is(type, "attribute");
        variable(name, id, Role::None, name, 0, told ? type : TSNode{}, {});
      } else if (g_.shapeOf(child) != Shape::Comment) {
        visit(child, id, Role::None);
      }
    }
  }

  // file = self.open(path) … with file: what the function itself has fetched by a call, under a name that is no lock's.
  bool isOpenedHere(TSNode value) const {
    if (!is(value, "identifier")) return false;
    TSNode function = value;
    while (!isNull(function) && !is(function, "function_definition")) function = ts_node_parent(function);
    return !isNull(function) && assignsCall(field(function, f_.body), text(value), begin(value));
  }
  bool assignsCall(TSNode node, std::string_view name, uint32_t before) const {
    if (isNull(node) || begin(node) >= before || is(node, "function_definition")) return false;
    if (is(node, "assignment") && text(field(node, f_.left)) == name) {
      std::string given = lowerCase(text(field(node, f_.right)));
      auto names = [&](std::string_view word) { return given.find(word) != std::string::npos; };
      return is(field(node, f_.right), "call") && !names("lock") && !names("mutex") && !names("semaphore") && !names("condition");
    }
    // Statements only: no expression holds one.
    static constexpr std::string_view kAround[] = {"block", "elif_clause", "else_clause", "except_clause", "expression_statement", "finally_clause", "for_statement", "if_statement", "try_statement", "while_statement", "with_statement"};
    if (std::none_of(std::begin(kAround), std::end(kAround), [&](std::string_view kind) { return is(node, kind); })) return false;
    NodeList inside = named(node);
    return std::any_of(inside.begin(), inside.end(), [&](TSNode child) { return assignsCall(child, name, before); });
  }

  void lowerWith(TSNode node, NodeId parent, Role role) {
    // A `with` over a plain name or attribute holds it for the block: a lock.
    TSNode clause = childOfType(node, "with_clause"), inner = field(node, f_.body);
    std::vector<TSNode> items = named(clause);
    std::erase_if(items, [&](TSNode item) { return !is(item, "with_item"); });
    NodeId at = parent;
    Role in = role;
    bool guarded = false;
    for (TSNode item : items) {
      TSNode value = field(item, f_.value);
      if (isNull(value)) value = firstNamed(item);
      Shape shape = g_.shapeOf(value);
      // async with: tasks take turns on one thread, and other threads are not kept out.
      if ((shape == Shape::Name || shape == Shape::Member) && !hasToken(node, "async") && !isOpenedHere(value)) {
        at = guardOf(node, at, in, value, {});
        in = Role::Body;
        guarded = true;
      } else {
        if (!guarded) {
          at = add(at, Kind::Block, in, node);
          in = Role::None;
        }
        if (is(value, "as_pattern")) {
          NodeList parts = named(value);
          TSNode target = childOfType(value, "as_pattern_target");
          TSNode name = isNull(target) ? TSNode{} : firstNamed(target);
          if (is(name, "identifier") && !parts.empty()) {
            NodeId assign = add(at, Kind::Assign, Role::None, value);
            visit(name, assign, Role::Target);
            visit(parts.front(), assign, Role::Value);
            continue;
          }
        }
        visit(value, at, Role::None);
      }
    }
    visit(inner, at, in == Role::Body ? Role::Body : Role::None);
  }

  NodeId homeOf(NodeId parent) const { return functionDepth_ == 0 && classDepth_ == 0 ? module_ : parent; }

  void import(TSNode node, const std::string& target, std::string_view local) {
    NodeId home = functionDepth_ == 0 ? module_ : functions_.empty() ? module_ : functions_.back().block;
    NodeId import = add(home, Kind::Import, Role::None, node);
    build_.setName(import, target, begin(node));
    std::string name = local.empty() ? target.substr(0, target.find("::")) : std::string(local);
    if (!functions_.empty() && functions_.back().elsewhere.count(name)) {
      // 7.11: an import binds its name in the scope that `global` tells.
      NodeId bound = add(home, Kind::Assign, Role::None, node);
      build_.setName(add(bound, Kind::Name, Role::Target, node), name, begin(node));
      build_.setName(add(bound, Kind::Name, Role::Value, node), target, begin(node));
      return;
    }
    NodeId id = add(home, Kind::Using, Role::None, node);
    build_.setName(id, name, begin(node));
    std::string what = local.empty() ? name : target;
    NodeId ref = add(id, Kind::TypeRef, Role::Type, node);
    build_.setName(ref, what, begin(node));
  }

  // 5.7: leading dots count packages upward from this module's.
  std::string modulePath(TSNode module) {
    std::string_view written = text(module);
    if (written.empty() || written[0] != '.') return scoped(written);
    size_t dots = written.find_first_not_of('.');
    if (dots == std::string_view::npos) dots = written.size();
    std::string base = file_.path.substr(0, file_.path.rfind('/') == std::string::npos ? 0 : file_.path.rfind('/'));
    for (size_t i = 1; i < dots && !base.empty(); ++i) base = base.substr(0, base.rfind('/') == std::string::npos ? 0 : base.rfind('/'));
    std::string out;
    for (char c : base) out += c == '/' ? std::string("::") : std::string(1, c);
    std::string rest = scoped(written.substr(dots));
    if (!rest.empty()) out += (out.empty() ? "" : "::") + rest;
    return out;
  }

  std::vector<ClassFrame> classes_;
  std::vector<FunctionFrame> functions_;
  std::set<std::string> moduleNames_, pendingGlobals_;
  std::map<std::string, Span> firstPlace_, attributePlace_;
  std::map<std::string, std::map<std::string, Span>> givenLater_;  // by class
  NodeId lastParameter_ = kNoNode;
};

void lowerPython(std::string_view text, const Language::TreeLore*, LoweredFile& out) { PythonLowerer(grammar(), text, out).run(); }
void parseOnlyPython(std::string_view text) { parseOnlyWith(grammar(), text); }

}  // namespace

Language pythonLanguage() {
  static constexpr std::string_view kExtensions[] = {".py"};
  static constexpr std::string_view kInterpreters[] = {"python"};
  Language language;
  language.id = "python";
  language.name = "Python";
  language.extensions = kExtensions;
  language.interpreters = kInterpreters;
  language.separator = ".";
  language.dotted = true;
  language.modulesApart = true;  // 4.2.2: the names of a package are no names of its modules
  language.bareMembers = false;
  language.infersTypes = true;
  language.createsByCall = true;
  language.modulesByFolder = true;
  language.guarantees = &pythonGuarantees();
  language.testImports = {"pytest", "unittest"};
  language.mending = &pythonMending();
  language.facing = &pythonFacing();
  language.settling = &pythonSettling();
  language.announcing = &pythonAnnouncing();
  language.sound = &pythonSound();
  language.handing = &pythonHanding();
  language.lower = lowerPython;
  language.parseOnly = parseOnlyPython;
  language.grammar = tree_sitter_python;
  language.writer = pythonWriter;
  language.harness = pythonHarness;
  return language;
}

}  // namespace elmcart
