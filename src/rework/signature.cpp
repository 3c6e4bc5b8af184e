#include "rework/signature.h"

#include <algorithm>

#include "base/text.h"
#include "rework/parameter.h"
#include "rework/writing.h"

namespace elmcart {
namespace {

// All blanks and line ends between words as one blank.
std::string onOneLine(std::string_view text) {
  std::string out;
  for (char c : text) {
    if (!isBlank(c) && c != '\n' && c != '\r') out += c;
    else if (!out.empty() && out.back() != ' ' && out.back() != '(') out += ' ';
  }
  while (!out.empty() && out.back() == ' ') out.pop_back();
  for (size_t at = out.find(" )"); at != std::string::npos; at = out.find(" )")) out.erase(at, 1);
  return out;
}

// Behind what marks a declaration: @Name(…), [Name], [[name]], #[Name].
size_t behindMarks(std::string_view text, size_t at) {
  for (;;) {
    while (at < text.size() && (isBlank(text[at]) || text[at] == '\n' || text[at] == '\r')) ++at;
    bool bracket = text.substr(at, 1) == "[" || text.substr(at, 2) == "#[";
    if (!bracket && text.substr(at, 1) != "@") return at;
    if (text.substr(at, 1) == "@") {
      ++at;
      while (at < text.size() && (isWordByte(text[at]) || text[at] == '.')) ++at;
      if (at >= text.size() || text[at] != '(') continue;
    } else {
      at = text.find('[', at);
    }
    char open = text[at], close = open == '(' ? ')' : ']';
    int depth = 0;
    for (; at < text.size(); ++at) {
      depth += text[at] == open ? 1 : text[at] == close ? -1 : 0;
      if (depth == 0) break;
    }
    ++at;
  }
}

}  // namespace

std::vector<FunctionIndex> inTextOrder(const Program& p, const std::set<FunctionIndex>& functions) {
  std::vector<FunctionIndex> out(functions.begin(), functions.end());
  std::sort(out.begin(), out.end(), [&](FunctionIndex x, FunctionIndex y) { return p.node(p.functions[x].declarations.front()).span.begin < p.node(p.functions[y].declarations.front()).span.begin; });
  return out;
}

std::string withoutLeadingWords(std::string_view text, std::span<const std::string_view> words) {
  for (bool more = true; more;) {
    more = false;
    text = trim(text);
    for (std::string_view word : words) {
      if (text.substr(0, word.size()) != word || text.size() <= word.size() || !isBlank(text[word.size()])) continue;
      text = trim(text.substr(word.size()));
      more = true;
    }
  }
  return std::string(text);
}

Place Signatures::homeOf(FunctionIndex member) const {
  const Function& fn = p_.functions[member];
  Place definition = p_.types[type_].definition;
  for (Place place : fn.declarations)
    if (place.file == definition.file && p_.isInside(place, definition.node)) return place;
  return fn.home();
}

uint32_t Signatures::wordsBegin(FunctionIndex member) {
  Place home = homeOf(member);
  const Node& node = p_.node(home);
  return node.span.begin + static_cast<uint32_t>(behindMarks(scan_.text(home.file).substr(node.span.begin, node.span.size()), 0));
}

bool Signatures::namesInner(std::string_view text) const {
  Place definition = p_.types[type_].definition;
  for (NodeId c : children(p_.file(definition), definition.node)) {
    const Node& node = p_.file(definition)[c];
    if ((node.kind == Kind::Type || node.kind == Kind::Alias || node.kind == Kind::Enumerator) && node.name && holdsWord(text, p_.file(definition).name(c))) return true;
  }
  return false;
}

Signature Signatures::signatureOf(FunctionIndex member) {
  const Facing& f = *language_.facing;
  const Function& fn = p_.functions[member];
  Place home = homeOf(member);
  const Node& node = p_.node(home);
  std::string_view source = scan_.text(home.file);
  std::string name(p_.text(fn.name));
  Signature out;
  auto refuse = [&](const std::string& why) {
    out.reason = name + " " + why;
    return out;
  };
  if (node.has(kInMacro)) return refuse("is written by a macro");
  bool getter = fn.form == FunctionForm::Getter;
  // The whole of an Objective-C method's name stands between its parameters.
  bool labelled = f.namedByParts;
  uint32_t close = getter || labelled ? node.nameBegin + static_cast<uint32_t>(name.size()) : scan_.parameterListEnd(home);
  NodeId body = p_.file(home).child(home.node, Role::Body);
  uint32_t end = body == kNoNode ? node.span.end : p_.file(home)[body].span.begin;
  if (close == 0 || (!labelled && close > node.span.end)) return refuse("could not be read");
  if (labelled) close = end;
  if (getter && !f.getters) return f.untold.empty() ? refuse("is a property, and those are left to hand") : (out.whole = false, out);
  uint32_t begin = wordsBegin(member);
  if (f.objectInFront && !objectNamedInFront(p_, scan_, home).empty()) begin = node.nameBegin;
  std::string head(source.substr(begin, close - begin));
  std::string tail = end > close ? std::string(trim(source.substr(close, end - close))) : "";
  // Up to where the body is opened.
  if (f.bodyBehindColon) {
    int depth = 0;
    for (size_t at = 0; at < tail.size(); ++at) {
      depth += tail[at] == '[' || tail[at] == '(' ? 1 : tail[at] == ']' || tail[at] == ')' ? -1 : 0;
      if (tail[at] == ':' && depth == 0) {
        tail.resize(at);
        break;
      }
    }
  }
  for (std::string_view sign : {"=>", "=", "{", ";", ":"})
    if (tail.size() >= sign.size() && tail.compare(tail.size() - sign.size(), sign.size(), sign) == 0) tail = std::string(trim(std::string_view(tail).substr(0, tail.size() - sign.size())));
  // A whole body may have been left inside where it has no node of its own.
  if (body == kNoNode && !labelled)
    if (size_t open = tail.find_first_of("{;"); open != std::string::npos) tail = std::string(trim(std::string_view(tail).substr(0, open)));
  head = withoutLeadingWords(head, f.dropped);
  for (bool more = true; more;) {  // and what stands behind: override, async
    more = false;
    for (std::string_view word : f.dropped) {
      std::string_view all = trim(tail);
      if (all.size() < word.size() || all.substr(all.size() - word.size()) != word || (all.size() > word.size() && isWordByte(all[all.size() - word.size() - 1]))) continue;
      tail = std::string(trim(all.substr(0, all.size() - word.size())));
      more = true;
    }
  }
  while (labelled && !head.empty() && (head.back() == ';' || isBlank(head.back()))) head.pop_back();
  out.text = onOneLine(head);
  if (!tail.empty()) {
    bool apart = tail[0] != ':' && tail[0] != ',';
    out.text += (apart ? " " : "") + onOneLine(tail);
  }
  if (out.text.find("//") != std::string::npos || out.text.find("/*") != std::string::npos) return refuse("has a comment in its head");
  if (namesInner(out.text)) return f.untold.empty() ? refuse("names something that is declared inside the class") : (out.whole = false, out);
  bool defaults = f.noDefaults && out.text.find('=') != std::string::npos && out.text.find("=>") == std::string::npos;
  bool untold = f.resultBehindColon && (tail.empty() || tail[0] != ':');
  // fun raise(by: Int) { … } gives nothing, and says so by its brackets.
  if (untold && f.nothingByBrackets) untold = body == kNoNode || p_.file(home)[body].kind != Kind::Block || source[p_.file(home)[body].span.begin] != '{';
  if ((defaults || untold) && f.untold.empty()) return refuse(defaults ? "has a parameter that may be left out, which an interface cannot say" : "does not say what it gives");
  out.whole = !defaults && !untold;
  return out;
}

bool Signatures::isExported() { return !visibility().empty(); }

std::string Signatures::visibility() {
  Place definition = p_.types[type_].definition;
  std::string_view source = scan_.text(definition.file);
  const Node& node = p_.node(definition);
  uint32_t line = scan_.lineBegin(definition.file, node.nameBegin);
  std::string_view head = source.substr(std::min(line, node.span.begin), node.nameBegin - std::min(line, node.span.begin));
  for (std::string_view word : {"export", "public", "internal"})
    if (holdsWord(head, word)) return std::string(word) + " ";
  return "";
}

std::string Signatures::headLines(FileIndex file, const std::string& members) {
  std::string_view source = scan_.text(file);
  std::string newline = scan_.newlineOf(file), out, imports;
  for (size_t begin = 0; begin < source.size();) {
    size_t end = std::min(source.find('\n', begin), source.size());
    std::string line(trim(source.substr(begin, end - begin)));
    begin = end + 1;
    if (line.substr(0, 8) == "package ") out += line + newline + newline;
    if (line.substr(0, 7) != "import ") continue;
    std::string bare = line.substr(0, line.find(';'));
    std::string last = bare.substr(bare.rfind('.') + 1);
    if (last == "*" || holdsWord(members, last)) imports += line + newline;
  }
  return out + imports + (imports.empty() ? "" : newline);
}

}  // namespace elmcart
