#include "languages/javascript/outline.h"

namespace elmcart::script {

void OutlinedScript::outline(TSNode root) {
  classNames(root, 0, true);
  staticsIn(root, 0, false);
}

void OutlinedScript::takeMembers(Prototype& prototype, TSNode object) {
  for (TSNode part : named(object)) {
    if (is(part, "pair")) prototype.members.emplace_back(text(field(part, f_.key)), field(part, f_.value));
    if (is(part, "method_definition")) prototype.members.emplace_back(text(field(part, f_.name)), part);
  }
}

// extend(Widget.prototype, Events, { draw: function () { … } })
void OutlinedScript::prototypesByCall(TSNode call) {
  NodeList given = named(field(call, f_.arguments));
  if (given.size() < 2 || !is(given[0], "member_expression") || text(field(given[0], f_.property)) != "prototype" || !is(field(given[0], f_.object), "identifier")) return;
  for (TSNode one : given)
    if (is(one, "object")) takeMembers(prototypes_[std::string(text(field(given[0], f_.object)))], one);
}

// `top`: do the statements here run once, when the file is loaded?
void OutlinedScript::classNames(TSNode node, int depth, bool top) {
  if (depth > 200) return;
  if (is(node, "class_declaration") || is(node, "abstract_class_declaration")) classNames_.insert(std::string(text(field(node, f_.name))));
  if (is(node, "variable_declarator") && is(field(node, f_.value), "class")) classNames_.insert(std::string(text(field(node, f_.name))));
  if (is(node, "assignment_expression")) prototypesIn(node, top);
  if (is(node, "call_expression")) prototypesByCall(node);
  if (is(node, "new_expression")) newed_.insert(std::string(text(field(node, f_.constructor))));
  bool goesOn = top && (depth == 0 || isPassedByLoading(node));
  for (TSNode child : named(node)) classNames(child, depth + 1, goesOn);
}

// A function that is called in place, and what stands around it.
bool OutlinedScript::isPassedByLoading(TSNode node) const {
  if (is(node, "call_expression")) {
    TSNode called = field(node, f_.function);
    return is(called, "parenthesized_expression") || is(called, "function_expression") || text(called) == "define";
  }
  for (std::string_view type : {"expression_statement", "parenthesized_expression", "unary_expression", "arguments", "function_expression", "arrow_function", "statement_block"})
    if (is(node, type)) return true;
  return false;
}

void OutlinedScript::prototypesIn(TSNode assignment, bool top) {
  TSNode left = field(assignment, f_.left), right = field(assignment, f_.right);
  if (is(left, "subscript_expression") && is(field(left, f_.object), "identifier")) indexed_.insert(std::string(text(field(left, f_.object))));
  if (!is(left, "member_expression")) return;
  TSNode object = field(left, f_.object);
  if (is(object, "identifier")) {
    if (top) toplevelMembers_[std::string(text(object))].insert(std::string(text(field(left, f_.property))));
    if (is(right, "function_expression") || is(right, "arrow_function") || is(right, "class")) grown_.insert(std::string(text(object)));
  }
  if (is(object, "member_expression") && text(field(object, f_.property)) == "prototype" && is(field(object, f_.object), "identifier")) {
    prototypes_[std::string(text(field(object, f_.object)))].members.emplace_back(text(field(left, f_.property)), right);
  } else if (is(object, "identifier") && text(field(left, f_.property)) == "prototype") {
    Prototype& prototype = prototypes_[std::string(text(object))];
    if (is(right, "object")) takeMembers(prototype, right);
    std::string_view made = text(right);  // Object.create(Base.prototype), new Base()
    constexpr std::string_view kCreate = "Object.create(";
    if (made.starts_with(kCreate)) prototype.base = made.substr(kCreate.size(), made.find_first_of(".,)", kCreate.size()) - kCreate.size());
    if (is(right, "new_expression")) prototype.base = text(field(right, f_.constructor));
  }
}

// Class.name = … somewhere in the file makes a class-level field.
// `inClass`: this.name there is a field that the class's objects have for themselves.
void OutlinedScript::staticsIn(TSNode node, int depth, bool inClass) {
  if (depth > 200) return;
  if (is(node, "class_body")) inClass = true;
  if (is(node, "object") || is(node, "function_declaration") || is(node, "function_expression")) inClass = false;
  if (is(node, "assignment_expression") || is(node, "augmented_assignment_expression")) {
    TSNode left = field(node, f_.left);
    if (is(left, "identifier")) assigned_[std::string(text(left))] += 2;
    if (is(left, "member_expression") && !(inClass && is(field(left, f_.object), "this"))) ++assigned_[std::string(text(field(left, f_.property)))];  // of a namespace, perhaps
    TSNode object = is(left, "member_expression") ? field(left, f_.object) : TSNode{};
    if (is(object, "identifier") && (classNames_.count(std::string(text(object))) || prototypes_.count(std::string(text(object))) || grown_.count(std::string(text(object))))) {
      TSNode property = field(left, f_.property);
      statics_[std::string(text(object))].emplace(text(property), spanOf(property));
    }
  }
  for (TSNode child : named(node)) staticsIn(child, depth + 1, inClass);
}

// this.name = … makes a field, in a static method one of the class.
void OutlinedScript::fieldsOf(TSNode node, bool inStatic, const std::string& cls, std::map<std::string, Span>& out, int depth) {
  if (isNull(node) || depth > 200) return;
  if (is(node, "class_declaration") || is(node, "class") || is(node, "function_expression") || is(node, "function_declaration")) return;
  if (is(node, "assignment_expression") || is(node, "augmented_assignment_expression")) {
    TSNode left = field(node, f_.left);
    TSNode object = is(left, "member_expression") ? field(left, f_.object) : TSNode{};
    if (is(object, "this") || (!inStatic && is(object, "identifier") && (text(object) == "self" || text(object) == "that") && functionDepth_ == 0)) {
      TSNode property = field(left, f_.property);
      if (inStatic) statics_[cls].emplace(text(property), spanOf(property));
      else out.emplace(text(property), spanOf(property));
    }
  }
  for (TSNode child : named(node)) fieldsOf(child, inStatic, cls, out, depth + 1);
}

}  // namespace elmcart::script
