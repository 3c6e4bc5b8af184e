// Names, types and declarators of C++.
#include "languages/cpp/lowerer.h"

namespace elmcart::cpp {

// A name without white space and template arguments: "a::B" for "a :: B<int>".
std::string Lowerer::plainName(TSNode node) const {
  std::string_view raw = textOfNode(node);
  if (std::all_of(raw.begin(), raw.end(), isWordByte)) return std::string(raw);
  std::string out;
  int depth = 0;
  for (size_t i = 0; i < raw.size(); ++i) {
    char c = raw[i];
    bool isOperator = out.size() >= 8 && out.compare(out.size() - 8, 8, "operator") == 0;
    if (c == '<' && !isOperator) ++depth;
    else if (c == '>' && depth > 0) --depth;
    else if (depth == 0 && !isBlank(c)) out += c;
    if (isOperator && c == '<') out += raw.substr(i + 1), i = raw.size();
  }
  if (out.compare(0, 8, "typename") == 0 && out.size() > 8 && raw.size() > 8 && isBlank(raw[8])) out.erase(0, 8);
  if (out.compare(0, 8, "template") == 0 && raw.size() > 8 && isBlank(raw[8])) out.erase(0, 8);
  if (out.compare(0, 2, "::") == 0) out.erase(0, 2);
  return out;
}

// The grammar node of a (qualified) name's last part.
TSNode Lowerer::lastNameNode(TSNode node) const {
  for (;;) {
    Tag tag = tagOf(node);
    if (tag == Tag::Qualified || tag == Tag::TemplateFunction || tag == Tag::TemplateType || tag == Tag::TemplateMethod) {
      TSNode inner = fieldOf(node, grammar().name);
      if (isNull(inner)) return node;
      node = inner;
    } else if ((tag == Tag::DependentName || tag == Tag::DependentType) && ts_node_named_child_count(node) > 0) {
      node = ts_node_named_child(node, ts_node_named_child_count(node) - 1);
    } else {
      return node;
    }
  }
}

void Lowerer::typeArguments(TSNode node, NodeId parent) {
  // The argument list of the last template name inside `node`.
  TSNode at = node;
  for (;;) {
    Tag tag = tagOf(at);
    if (tag == Tag::TemplateType || tag == Tag::TemplateFunction || tag == Tag::TemplateMethod) break;
    if (tag == Tag::Qualified) {
      TSNode inner = fieldOf(at, grammar().name);
      TSNode innerLast = inner;
      if (isNull(inner)) return;
      // Registry<Foo>::get: the scope's arguments matter when the name has none.
      if (tagOf(innerLast) == Tag::Identifier || tagOf(innerLast) == Tag::TypeIdentifier || tagOf(innerLast) == Tag::FieldIdentifier) {
        TSNode scope = fieldOf(at, grammar().scope);
        if (isNull(scope)) return;
        at = scope;
      } else {
        at = inner;
      }
    } else if ((tag == Tag::DependentName || tag == Tag::DependentType) && ts_node_named_child_count(at) > 0) {
      at = ts_node_named_child(at, ts_node_named_child_count(at) - 1);
    } else {
      return;
    }
  }
  TSNode list = fieldOf(at, grammar().arguments);
  if (isNull(list)) return;
  Deeper deeper(*this);
  if (tooDeep(list, parent)) return;
  Children kids(*this, list);
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].tag == Tag::TypeDescriptor) typeDescriptor(kids[i].node, parent, Role::TypeArgument);
    else if (kids[i].tag != Tag::None && kids[i].tag != Tag::Comment) {
      NodeId id = build_.add(parent, Kind::TypeRef, Role::TypeArgument, spanOf(kids[i].node));
      build_.setName(id, plainName(kids[i].node), begin(kids[i].node));
    }
  }
}

NodeId Lowerer::typeRef(TSNode typeNode, bool hasType, Span fallback, NodeId parent, Role role, const Declarator& declarator, bool constBase) {
  NodeId id = build_.add(parent, Kind::TypeRef, role, hasType ? spanOf(typeNode) : fallback);
  uint32_t bits = 0;
  bool indirect = declarator.pointer || declarator.reference;
  if (declarator.pointer) bits |= kPointer;
  if (declarator.reference) bits |= kReference;
  if (declarator.rvalue) bits |= kRvalue;
  if (declarator.array) bits |= kArray;
  if (constBase) bits |= indirect ? kPointeeConst : kConst;
  if (declarator.constPointer) bits |= kConst;
  if (declarator.pack) bits |= kPack;
  if (declarator.functionPointer) {
    build_[id].modifiers = bits | kPointer;
    build_.setName(id, "(function)", begin(typeNode));
    return id;
  }
  if (hasType) {
    Tag tag = tagOf(typeNode);
    if (tag == Tag::Class || tag == Tag::Struct || tag == Tag::Union || tag == Tag::Enum) {
      TSNode name = fieldOf(typeNode, grammar().name);
      if (!isNull(name)) build_.setName(id, plainName(name), begin(lastNameNode(name)));
    } else if (tag == Tag::Auto) {
      build_.setName(id, "auto", begin(typeNode));
    } else if (tag == Tag::Decltype) {
      build_.setName(id, "auto", begin(typeNode));
    } else if (tag == Tag::Sized || tag == Tag::Primitive) {
      std::string words(textOfNode(typeNode));
      build_.setName(id, words, begin(typeNode));
    } else {
      build_.setName(id, plainName(typeNode), begin(lastNameNode(typeNode)));
      typeArguments(typeNode, id);
    }
  }
  build_[id].modifiers = bits;
  return id;
}

// A type as it stands in an argument list or a cast: "const Foo*".
void Lowerer::typeDescriptor(TSNode node, NodeId parent, Role role) {
  Specifiers specifiers;
  Declarator declarator;
  {
    Children kids(*this, node);
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].field == grammar().type) {
        specifiers.type = kids[i].node;
        specifiers.hasType = true;
      } else if (kids[i].field == grammar().declarator) {
        readDeclarator(kids[i].node, declarator);
      } else if (kids[i].tag == Tag::TypeQualifier) {
        specifiers.constObject |= textOfNode(kids[i].node) == "const";
      }
    }
  }
  // `void(int)` as an argument of std::function: the signature is no matter here.
  declarator.functionPointer = declarator.isFunction;
  typeRef(specifiers.type, specifiers.hasType, spanOf(node), parent, role, declarator, specifiers.constObject);
}

void Lowerer::readDeclarator(TSNode node, Declarator& out) {
  for (int guard = 0; guard < 64; ++guard) {
    Tag tag = tagOf(node);
    if (tag == Tag::PointerDeclarator || tag == Tag::ReferenceDeclarator || tag == Tag::ArrayDeclarator ||
        tag == Tag::ParenDeclarator || tag == Tag::AttributedDeclarator || tag == Tag::FunctionDeclarator || tag == Tag::VariadicParameter) {
      TSNode inner = fieldOf(node, grammar().declarator);
      if (tag == Tag::PointerDeclarator) {
        out.pointer = true;
        out.constPointer = false;
        for (uint32_t i = 0; i < ts_node_named_child_count(node); ++i)
          if (tagOf(ts_node_named_child(node, i)) == Tag::TypeQualifier && textOfNode(ts_node_named_child(node, i)) == "const") out.constPointer = true;
      }
      if (tag == Tag::ReferenceDeclarator) {
        out.reference = true;
        if (textOfNode(node).substr(0, 2) == "&&") out.rvalue = true;
      }
      if (tag == Tag::ArrayDeclarator) out.array = true;
      if (tag == Tag::FunctionDeclarator) {
        if (!isNull(inner) && tagOf(inner) == Tag::ParenDeclarator && looksLikePointerTo(inner)) {
          out.functionPointer = true;
        } else if (!out.isFunction) {
          out.isFunction = true;
          out.functionNode = node;
        }
      }
      if (isNull(inner)) {
        uint32_t count = ts_node_named_child_count(node);
        if (count == 0 || tag == Tag::FunctionDeclarator) return;
        inner = ts_node_named_child(node, tag == Tag::AttributedDeclarator ? 0 : count - 1);
        Tag innerTag = tagOf(inner);
        if (innerTag == Tag::TypeQualifier || innerTag == Tag::ParameterList || innerTag == Tag::Number) return;
      }
      node = inner;
      continue;
    }
    if (tag == Tag::BindingDeclarator) {
      out.bindingNode = node;
      return;
    }
    if (tag == Tag::Identifier || tag == Tag::FieldIdentifier || tag == Tag::TypeIdentifier || tag == Tag::Qualified ||
        tag == Tag::DestructorName || tag == Tag::OperatorName || tag == Tag::OperatorCast || tag == Tag::TemplateFunction || tag == Tag::TemplateMethod) {
      out.nameNode = node;
      out.hasName = true;
      if (tag == Tag::OperatorCast || (tag == Tag::Qualified && tagOf(lastNameNode(node)) == Tag::OperatorCast)) {
        out.isFunction = true;
        TSNode castNode = lastNameNode(node);
        TSNode inner = fieldOf(castNode, grammar().declarator);
        for (int i = 0; !isNull(inner) && i < 16; ++i) {
          if (tagOf(inner) == Tag::FunctionDeclarator) out.functionNode = inner;
          if (tagOf(inner) == Tag::PointerDeclarator) out.pointer = true;
          if (tagOf(inner) == Tag::ReferenceDeclarator) out.reference = true;
          TSNode next = fieldOf(inner, grammar().declarator);
          if (isNull(next) && ts_node_named_child_count(inner) > 0 && tagOf(inner) != Tag::FunctionDeclarator) next = ts_node_named_child(inner, ts_node_named_child_count(inner) - 1);
          inner = next;
        }
      }
    }
    return;
  }
}

bool Lowerer::looksLikePointerTo(TSNode paren) const {
  for (uint32_t i = 0; i < ts_node_named_child_count(paren); ++i) {
    Tag tag = tagOf(ts_node_named_child(paren, i));
    if (tag == Tag::PointerDeclarator || tag == Tag::ReferenceDeclarator) return true;
  }
  return textOfNode(paren).find('*') != std::string_view::npos;
}

Specifiers Lowerer::readSpecifiers(const Children& kids) {
  Specifiers out;
  for (size_t i = 0; i < kids.size(); ++i) {
    Child kid = kids[i];
    std::string_view word = kid.tag == Tag::StorageClass || kid.tag == Tag::TypeQualifier || kid.tag == Tag::None ? textOfNode(kid.node) : std::string_view{};
    if (kid.field == grammar().type && !out.hasType) {
      out.type = kid.node;
      out.hasType = true;
    } else if (kid.tag == Tag::StorageClass || kid.tag == Tag::TypeQualifier || kid.tag == Tag::None) {
      if (word == "static") out.modifiers |= kStatic;
      else if (word == "extern") out.modifiers |= kExtern;
      else if (word == "thread_local" || word == "__thread" || word == "_Thread_local") out.modifiers |= kThreadLocal;
      else if (word == "inline") out.modifiers |= kInline;
      else if (word == "const") out.constObject = true;
      else if (word == "constexpr") out.modifiers |= kConstant, out.constObject = true;
      else if (word == "constinit") out.modifiers |= kConstInit;
      else if (word == "mutable") out.modifiers |= kMutable;
      else if (word == "volatile") out.modifiers |= kVolatile;
      else if (word == "virtual") out.modifiers |= kVirtual;
      else if (word == "friend") out.modifiers |= kFriend;
    } else if (kid.tag == Tag::VirtualWord) {
      out.modifiers |= kVirtual;
    } else if (kid.tag == Tag::ExplicitWord) {
      out.modifiers |= kExplicit;
    }
  }
  return out;
}

}  // namespace elmcart::cpp
