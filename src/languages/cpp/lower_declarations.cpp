// Declarations: namespaces, classes, functions, variables of C++.
#include "languages/cpp/lowerer.h"

namespace elmcart::cpp {

void Lowerer::declarations(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
  Deeper deeper(*this);
  if (tooDeep(node, parent)) return;
  Children kids(*this, node);
  for (size_t i = 0; i < kids.size(); ++i) {
    Child kid = kids[i];
    if (kid.tag == Tag::Access) {
      std::string_view word = textOfNode(kid.node);
      visibility = word.substr(0, 6) == "public" ? kPublic : word.substr(0, 7) == "private" ? kPrivate : kProtected;
      continue;
    }
    declaration(kid, parent, place, className, visibility);
  }
}

void Lowerer::declaration(Child kid, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
  switch (kid.tag) {
    case Tag::Namespace: namespaceDefinition(kid.node, parent); break;
    case Tag::Linkage: {
      TSNode body = fieldOf(kid.node, grammar().body);
      if (isNull(body)) break;
      if (tagOf(body) == Tag::DeclarationList) declarations(body, parent, place, className, visibility);
      else {
        Deeper deeper(*this);
        if (!tooDeep(body, parent)) declaration({body, 0, tagOf(body)}, parent, place, className, visibility);
      }
      break;
    }
    case Tag::Template: templateDeclaration(kid.node, parent, place, className, visibility); break;
    case Tag::Class: case Tag::Struct: case Tag::Union: case Tag::Enum:
      typeDefinition(kid.node, parent, visibility);
      break;
    case Tag::FunctionDefinition: functionDefinition(kid.node, parent, place, className, visibility); break;
    case Tag::Declaration: case Tag::FieldDeclaration: variables(kid.node, parent, place, className, visibility); break;
    case Tag::Alias: aliasDeclaration(kid.node, parent); break;
    case Tag::Typedef: typedefDeclaration(kid.node, parent, visibility); break;
    case Tag::Using: usingDeclaration(kid.node, parent); break;
    case Tag::NamespaceAlias: {
      TSNode name = fieldOf(kid.node, grammar().name);
      if (isNull(name)) break;
      NodeId id = build_.add(parent, Kind::Alias, Role::Member, spanOf(kid.node));
      build_.setName(id, textOfNode(name), begin(name));
      uint32_t count = ts_node_named_child_count(kid.node);
      TSNode target = ts_node_named_child(kid.node, count - 1);
      NodeId ref = build_.add(id, Kind::TypeRef, Role::Type, spanOf(target));
      build_.setName(ref, plainName(target), begin(target));
      break;
    }
    case Tag::Friend: friendDeclaration(kid.node, parent); break;
    case Tag::Error: errorNode(kid.node, parent, place, className, visibility); break;
    case Tag::ExpressionStatement:
      // At class or namespace scope: a macro's leftovers. At a class's scope it
      // may take copying away.
      noteMacroMember(kid.node, parent, className, place);
      break;
    default: break;
  }
}

// A macro call in a class body that is known to delete the copy operations.
void Lowerer::noteMacroMember(TSNode node, NodeId parent, std::string_view className, Place place) {
  if (place != Place::ClassScope || !lore_) return;
  std::string_view text = trim(textOfNode(node));
  size_t end = 0;
  while (end < text.size() && isWordByte(text[end])) ++end;
  std::string word(text.substr(0, end));
  if (!lore_->forbidsCopy.count(word)) return;
  NodeId id = build_.add(parent, Kind::Function, Role::Member, spanOf(node));
  build_.setName(id, className, begin(node));
  build_[id].detail = static_cast<uint8_t>(FunctionForm::Constructor);
  build_[id].modifiers = kPrivate | kDeleted | kInMacro;
  NodeId parameter = build_.add(id, Kind::Parameter, Role::Parameter, spanOf(node));
  NodeId type = build_.add(parameter, Kind::TypeRef, Role::Type, spanOf(node));
  build_.setName(type, className, begin(node));
  build_[type].modifiers = kReference | kPointeeConst;
}

bool Lowerer::isWholeConstruct(Tag tag) {
  switch (tag) {
    case Tag::Namespace: case Tag::Linkage: case Tag::Template: case Tag::Class: case Tag::Struct: case Tag::Union:
    case Tag::Enum: case Tag::FunctionDefinition: case Tag::Declaration: case Tag::FieldDeclaration: case Tag::Alias:
    case Tag::Typedef: case Tag::Using: case Tag::Compound: case Tag::If: case Tag::For: case Tag::RangeFor:
    case Tag::While: case Tag::Do: case Tag::Switch: case Tag::Return: case Tag::ExpressionStatement: case Tag::Try: case Tag::Comment:
      return true;
    default: return false;
  }
}

// What the grammar could not read: the whole constructs inside are still used,
// the bytes between them are unread.
void Lowerer::errorNode(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
  Deeper deeper(*this);
  if (tooDeep(node, parent)) return;
  Children kids(*this, node);
  uint32_t from = begin(node);
  for (size_t i = 0; i < kids.size(); ++i) {
    if (!isWholeConstruct(kids[i].tag)) continue;
    Span span = spanOf(kids[i].node);
    unread(parent, trimmed({from, span.begin}));
    if (kids[i].tag != Tag::Comment) {
      if (place == Place::FunctionBody) statement(kids[i], parent, Role::None);
      else if (!isStatement(kids[i].tag)) declaration(kids[i], parent, place, className, visibility);
    }
    from = span.end;
  }
  unread(parent, trimmed({from, ts_node_end_byte(node)}));
}

bool Lowerer::isStatement(Tag tag) {
  return tag == Tag::Compound || tag == Tag::If || tag == Tag::For || tag == Tag::RangeFor || tag == Tag::While ||
         tag == Tag::Do || tag == Tag::Switch || tag == Tag::Return || tag == Tag::ExpressionStatement || tag == Tag::Try;
}

Span Lowerer::trimmed(Span span) const {
  while (!span.empty() && isBlank(text_[span.begin])) ++span.begin;
  while (!span.empty() && isBlank(text_[span.end - 1])) --span.end;
  return span;
}

void Lowerer::namespaceDefinition(TSNode node, NodeId parent) {
  NodeId id = build_.add(parent, Kind::Namespace, Role::Member, spanOf(node));
  TSNode name = fieldOf(node, grammar().name);
  if (!isNull(name)) build_.setName(id, plainName(name), begin(name));
  if (textOfNode(node).substr(0, 6) == "inline") build_[id].modifiers |= kInline;
  TSNode body = fieldOf(node, grammar().body);
  if (!isNull(body)) declarations(body, id, Place::NamespaceScope, "", 0);
}

void Lowerer::templateDeclaration(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
  Deeper deeper(*this);
  if (tooDeep(node, parent)) return;
  std::vector<std::pair<std::string, uint32_t>> saved = std::move(templateParameters_);
  templateParameters_.clear();
  Children kids(*this, node);
  bool first = true;
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].tag == Tag::TemplateParameters) {
      Children parameters(*this, kids[i].node);
      for (size_t k = 0; k < parameters.size(); ++k) {
        if (parameters[k].tag != Tag::TypeParameter) continue;
        TSNode name = parameters[k].node;
        if (TSNode named = fieldOf(name, grammar().name); !isNull(named)) name = named;
        else if (ts_node_named_child_count(name) > 0) name = ts_node_named_child(name, 0);
        templateParameters_.emplace_back(std::string(textOfNode(name)), begin(name));
      }
      continue;
    }
    if (kids[i].tag == Tag::None || !first) continue;
    first = false;
    isTemplate_ = true;
    declaration(kids[i], parent, place, className, visibility);
    isTemplate_ = false;
  }
  templateParameters_ = std::move(saved);
}

void Lowerer::attachTemplate(NodeId id) {
  if (!isTemplate_) return;
  isTemplate_ = false;
  build_[id].modifiers |= kTemplate;
  for (auto& [name, at] : templateParameters_) {
    NodeId parameter = build_.add(id, Kind::TypeRef, Role::TypeParameter, {at, at});
    build_.setName(parameter, name, at);
  }
  templateParameters_.clear();
}

// Returns kNoNode for a mere mention ("struct Foo* p").
NodeId Lowerer::typeDefinition(TSNode node, NodeId parent, uint32_t visibility) {
  Tag tag = tagOf(node);
  TSNode name = fieldOf(node, grammar().name);
  TSNode body = fieldOf(node, grammar().body);
  NodeId id = build_.add(parent, Kind::Type, Role::Member, spanOf(node));
  TypeForm form = tag == Tag::Class ? TypeForm::Class : tag == Tag::Struct ? TypeForm::Struct : tag == Tag::Union ? TypeForm::Union : TypeForm::Enum;
  build_[id].detail = static_cast<uint8_t>(form);
  build_[id].modifiers = visibility | (isNull(body) ? 0u : static_cast<uint32_t>(kDefinition));
  attachTemplate(id);
  std::string plain;
  if (!isNull(name)) {
    plain = plainName(name);
    build_.setName(id, plain, begin(lastNameNode(name)));
  } else {
    build_[id].nameBegin = begin(node);
  }
  Children kids(*this, node);
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].tag == Tag::BaseClause) bases(kids[i].node, id, tag == Tag::Class ? uint32_t{kPrivate} : uint32_t{kPublic});
    if (kids[i].tag == Tag::VirtualSpecifier && textOfNode(kids[i].node) == "final") build_[id].modifiers |= kFinal;
    if (kids[i].tag == Tag::FieldList)
      declarations(kids[i].node, id, Place::ClassScope, lastPart(plain), tag == Tag::Class ? kPrivate : kPublic);
    if (kids[i].tag == Tag::EnumeratorList) {
      Children values(*this, kids[i].node);
      for (size_t k = 0; k < values.size(); ++k) {
        if (values[k].tag != Tag::Enumerator) continue;
        TSNode valueName = fieldOf(values[k].node, grammar().name);
        if (isNull(valueName)) continue;
        NodeId value = build_.add(id, Kind::Enumerator, Role::Member, spanOf(values[k].node));
        build_.setName(value, textOfNode(valueName), begin(valueName));
        values_.insert(std::string(textOfNode(valueName)));
      }
    }
  }
  return id;
}

void Lowerer::bases(TSNode node, NodeId type, uint32_t defaultVisibility) {
  Children kids(*this, node);
  uint32_t visibility = defaultVisibility;
  for (size_t i = 0; i < kids.size(); ++i) {
    switch (kids[i].tag) {
      case Tag::Access: {
        std::string_view word = textOfNode(kids[i].node);
        visibility = word == "public" ? kPublic : word == "private" ? kPrivate : kProtected;
        break;
      }
      case Tag::TypeIdentifier: case Tag::Qualified: case Tag::TemplateType: {
        NodeId ref = typeRef(kids[i].node, true, {}, type, Role::Base, Declarator{}, false);
        build_[ref].modifiers |= visibility;
        visibility = defaultVisibility;
        break;
      }
      default: break;
    }
  }
}

void Lowerer::aliasDeclaration(TSNode node, NodeId parent) {
  TSNode name = fieldOf(node, grammar().name);
  TSNode type = fieldOf(node, grammar().type);
  if (isNull(name) || isNull(type)) return;
  NodeId id = build_.add(parent, Kind::Alias, Role::Member, spanOf(node));
  attachTemplate(id);
  build_.setName(id, textOfNode(name), begin(name));
  typeDescriptor(type, id, Role::Type);
}

void Lowerer::typedefDeclaration(TSNode node, NodeId parent, uint32_t visibility) {
  Children kids(*this, node);
  Specifiers specifiers = readSpecifiers(kids);
  if (!specifiers.hasType) return;
  Tag tag = tagOf(specifiers.type);
  bool defines = (tag == Tag::Class || tag == Tag::Struct || tag == Tag::Union || tag == Tag::Enum) && !isNull(fieldOf(specifiers.type, grammar().body));
  bool named = defines && !isNull(fieldOf(specifiers.type, grammar().name));
  NodeId type = defines ? typeDefinition(specifiers.type, parent, visibility) : kNoNode;
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].field != grammar().declarator) continue;
    Declarator declarator;
    readDeclarator(kids[i].node, declarator);
    if (!declarator.hasName) continue;
    if (type != kNoNode && !named && !declarator.pointer) {  // typedef struct { … } Name;
      build_.setName(type, textOfNode(declarator.nameNode), begin(declarator.nameNode));
      named = true;
      continue;
    }
    NodeId id = build_.add(parent, Kind::Alias, Role::Member, spanOf(node));
    build_.setName(id, textOfNode(declarator.nameNode), begin(declarator.nameNode));
    declarator.functionPointer |= declarator.isFunction;
    typeRef(specifiers.type, true, {}, id, Role::Type, declarator, specifiers.constObject);
  }
}

void Lowerer::usingDeclaration(TSNode node, NodeId parent) {
  bool whole = false;
  Children kids(*this, node);
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].tag == Tag::None && textOfNode(kids[i].node) == "namespace") whole = true;
    if (kids[i].tag == Tag::Identifier || kids[i].tag == Tag::Qualified || kids[i].tag == Tag::NamespaceIdentifier) {
      NodeId id = build_.add(parent, Kind::Using, Role::Member, spanOf(node));
      build_.setName(id, plainName(kids[i].node), begin(lastNameNode(kids[i].node)));
      if (whole) build_[id].modifiers |= kWholeScope;
    }
  }
}

void Lowerer::friendDeclaration(TSNode node, NodeId parent) {
  Children kids(*this, node);
  for (size_t i = 0; i < kids.size(); ++i) {
    Tag tag = kids[i].tag;
    if (tag == Tag::TypeIdentifier || tag == Tag::Qualified || tag == Tag::TemplateType || tag == Tag::Class || tag == Tag::Struct) {
      TSNode name = kids[i].node;
      if (tag == Tag::Class || tag == Tag::Struct) name = fieldOf(name, grammar().name);
      if (isNull(name)) continue;
      NodeId id = build_.add(parent, Kind::TypeRef, Role::Member, spanOf(node));
      build_.setName(id, plainName(name), begin(name));
      build_[id].modifiers = kFriend;
    } else if (tag == Tag::Declaration) {  // friend int look(const Keeper&);
      Children parts(*this, kids[i].node);
      for (size_t k = 0; k < parts.size(); ++k) {
        if (parts[k].field != grammar().declarator) continue;
        Declarator declarator;
        readDeclarator(parts[k].node, declarator);
        if (!declarator.isFunction || !declarator.hasName) continue;
        NodeId id = build_.add(parent, Kind::TypeRef, Role::Member, spanOf(node));
        build_.setName(id, lastPart(textOfNode(declarator.nameNode)), begin(declarator.nameNode));
        build_[id].modifiers = kFriend;
      }
    }
  }
}

void Lowerer::parameters(TSNode functionNode, NodeId function) {
  TSNode list = fieldOf(functionNode, grammar().parameters);
  if (isNull(list)) return;
  Deeper deeper(*this);
  if (tooDeep(list, function)) return;
  Children kids(*this, list);
  for (size_t i = 0; i < kids.size(); ++i) {
    Tag tag = kids[i].tag;
    if (tag != Tag::ParameterDeclaration && tag != Tag::OptionalParameter && tag != Tag::VariadicParameter) continue;
    Children parts(*this, kids[i].node);
    Specifiers specifiers = readSpecifiers(parts);
    Declarator declarator;
    TSNode defaultValue = fieldOf(kids[i].node, grammar().defaultValue);
    for (size_t k = 0; k < parts.size(); ++k)
      if (parts[k].field == grammar().declarator) readDeclarator(parts[k].node, declarator);
    if (declarator.isFunction) declarator.functionPointer = true;
    if (!declarator.hasName && specifiers.hasType && tagOf(specifiers.type) == Tag::Primitive && textOfNode(specifiers.type) == "void" && !declarator.pointer) continue;
    NodeId id = build_.add(function, Kind::Parameter, Role::Parameter, spanOf(kids[i].node));
    if (declarator.hasName) build_.setName(id, textOfNode(declarator.nameNode), begin(declarator.nameNode));
    if (tag == Tag::VariadicParameter) build_[id].modifiers |= kPack;
    typeRef(specifiers.type, specifiers.hasType, spanOf(kids[i].node), id, Role::Type, declarator, specifiers.constObject);
    if (!isNull(defaultValue)) expression(defaultValue, id, Role::Initialiser);
  }
}

// Creates the Function node for a declarator; the caller adds a body.
NodeId Lowerer::functionNode(TSNode whole, const Specifiers& specifiers, const Declarator& declarator, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
  NodeId id = build_.add(parent, Kind::Function, Role::Member, spanOf(whole));
  attachTemplate(id);
  std::string qualified = declarator.hasName ? plainName(declarator.nameNode) : "";
  FunctionForm form = FunctionForm::Function;
  std::string last(lastPart(qualified));
  TSNode lastNode = declarator.hasName ? lastNameNode(declarator.nameNode) : whole;
  Tag lastTag = tagOf(lastNode);
  uint32_t modifiers = specifiers.modifiers | visibility;
  if (lastTag == Tag::DestructorName) {
    form = FunctionForm::Destructor;
  } else if (lastTag == Tag::OperatorCast) {
    form = FunctionForm::Conversion;
    qualified = qualified.substr(0, qualified.find('('));
  } else if (lastTag == Tag::OperatorName) {
    form = FunctionForm::Operator;
  } else if (!specifiers.hasType) {
    std::string_view scope = scopePart(qualified);
    if (!scope.empty() ? lastPart(scope) == last : place == Place::ClassScope && last == className) form = FunctionForm::Constructor;
  }
  if (form == FunctionForm::Function && !specifiers.hasType && scopePart(qualified).empty()) {
    // TEST(Quay, Opens) { … } and the like: a macro that defines a function.
    std::string_view raw = textOfNode(declarator.functionNode);
    if (place != Place::ClassScope && !isNull(declarator.functionNode)) {
      std::string name;
      for (char c : raw.substr(0, 200)) {
        if (c == '\n' || c == '\r') continue;
        if (c == ' ' && !name.empty() && name.back() == ' ') continue;
        name += c;
      }
      build_.setName(id, name, begin(declarator.functionNode));
      build_[id].modifiers = modifiers | kInMacro;
      return id;
    }
    modifiers |= kInMacro;
  }
  build_[id].detail = static_cast<uint8_t>(form);
  build_.setName(id, qualified, begin(lastNode));
  if (!isNull(declarator.functionNode)) {
    Children kids(*this, declarator.functionNode);
    for (size_t i = 0; i < kids.size(); ++i) {
      Tag tag = kids[i].tag;
      if (tag == Tag::VirtualSpecifier) modifiers |= textOfNode(kids[i].node) == "final" ? kFinal : kOverride;
      if (tag == Tag::TypeQualifier && textOfNode(kids[i].node) == "const") modifiers |= kConst;
      if (tag == Tag::Noexcept) modifiers |= kNoThrow;
    }
    parameters(declarator.functionNode, id);
  }
  build_[id].modifiers |= modifiers;
  if (specifiers.hasType || form == FunctionForm::Conversion) {
    Declarator result = declarator;
    result.isFunction = false;
    result.functionPointer = false;
    TSNode type = specifiers.type;
    bool hasType = specifiers.hasType;
    bool constBase = specifiers.constObject;
    // auto f() -> T
    if (hasType && tagOf(type) == Tag::Auto && !isNull(declarator.functionNode)) {
      Children kids(*this, declarator.functionNode);
      for (size_t i = 0; i < kids.size(); ++i) {
        if (kids[i].tag != Tag::TrailingReturn || ts_node_named_child_count(kids[i].node) == 0) continue;
        typeDescriptor(ts_node_named_child(kids[i].node, 0), id, Role::Type);
        return id;
      }
    }
    if (form == FunctionForm::Conversion) {
      type = fieldOf(lastNode, grammar().type);
      hasType = !isNull(type);
    }
    typeRef(type, hasType, spanOf(whole), id, Role::Type, result, constBase);
  }
  return id;
}

void Lowerer::functionDefinition(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
  Deeper deeper(*this);
  if (tooDeep(node, parent)) return;
  Children kids(*this, node);
  Specifiers specifiers = readSpecifiers(kids);
  Declarator declarator;
  uint32_t extra = 0;
  TSNode body = fieldOf(node, grammar().body);
  TSNode inits{};
  bool hasInits = false, asTry = false;
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].field == grammar().declarator) readDeclarator(kids[i].node, declarator);
    if (kids[i].tag == Tag::DefaultClause) extra |= kDefaulted;
    if (kids[i].tag == Tag::DeleteClause) extra |= kDeleted;
    if (kids[i].tag == Tag::PureClause) extra |= kAbstract;
    if (kids[i].tag == Tag::FieldInits) inits = kids[i].node, hasInits = true;
    if (kids[i].tag == Tag::Try) body = kids[i].node, asTry = true;
  }
  // `class Q_EXPORT Name { … }` left by an unknown macro reads as a function.
  if (specifiers.hasType && !declarator.isFunction) {
    Tag tag = tagOf(specifiers.type);
    if (tag == Tag::Class || tag == Tag::Struct) {
      unread(parent, spanOf(specifiers.type));
      return;
    }
  }
  specifiers.modifiers |= extra | (isNull(body) ? 0u : static_cast<uint32_t>(kDefinition));
  if (extra & kDefaulted) specifiers.modifiers |= kDefinition;
  NodeId id = functionNode(node, specifiers, declarator, parent, place, className, visibility);
  if (hasInits) fieldInits(inits, id);
  if (isNull(body)) return;
  if (asTry) {
    NodeId block = build_.add(id, Kind::Block, Role::Body, spanOf(body));
    statement({body, 0, Tag::Try}, block, Role::None);
  } else {
    block(body, id, Role::Body);
  }
}

void Lowerer::fieldInits(TSNode node, NodeId function) {
  Children kids(*this, node);
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].tag != Tag::FieldInit) continue;
    NodeId id = build_.add(function, Kind::FieldInit, Role::FieldInit, spanOf(kids[i].node));
    Children parts(*this, kids[i].node);
    for (size_t k = 0; k < parts.size(); ++k) {
      if (parts[k].tag == Tag::ArgumentList || parts[k].tag == Tag::InitList) arguments(parts[k].node, id);
      else if (k == 0) build_.setName(id, plainName(parts[k].node), begin(lastNameNode(parts[k].node)));
    }
  }
}

// One declaration may declare several names, a type and functions at once.
void Lowerer::variables(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
  Deeper deeper(*this);
  if (tooDeep(node, parent)) return;
  Children kids(*this, node);
  Specifiers specifiers = readSpecifiers(kids);
  std::string_view macroWord = specifiers.hasType ? std::string_view{} : trim(textOfNode(node));
  if (!macroWord.empty()) noteMacroMember(node, parent, className, place);
  if (specifiers.hasType) {
    Tag tag = tagOf(specifiers.type);
    bool aggregate = tag == Tag::Class || tag == Tag::Struct || tag == Tag::Union || tag == Tag::Enum;
    if (aggregate && !isNull(fieldOf(specifiers.type, grammar().body))) typeDefinition(specifiers.type, parent, visibility);
    else if (aggregate && ts_node_named_child_count(node) == 1) typeDefinition(specifiers.type, parent, visibility);  // forward
  }
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].field != grammar().declarator) continue;
    // Of a field, "= value" or "{value}" follows its declarator as a sibling.
    TSNode fieldValue{};
    bool hasFieldValue = false;
    for (size_t k = i + 1; k < kids.size() && kids[k].field != grammar().declarator; ++k)
      if (kids[k].field == grammar().defaultValue) fieldValue = kids[k].node, hasFieldValue = true;
    oneVariable(node, kids[i].node, specifiers, parent, place, className, visibility, hasFieldValue ? &fieldValue : nullptr, kids);
  }
}

void Lowerer::oneVariable(TSNode whole, TSNode declaratorNode, const Specifiers& specifiers, NodeId parent, Place place, std::string_view className, uint32_t visibility, const TSNode* fieldValue, const Children& siblings) {
  TSNode value{};
  bool hasValue = false;
  TSNode inner = declaratorNode;
  if (tagOf(declaratorNode) == Tag::InitDeclarator) {
    inner = fieldOf(declaratorNode, grammar().declarator);
    value = fieldOf(declaratorNode, grammar().value);
    hasValue = !isNull(value);
    if (isNull(inner)) return;
  }
  if (fieldValue) {
    value = *fieldValue;
    hasValue = true;
  }
  Declarator declarator;
  readDeclarator(inner, declarator);
  if (!isNull(declarator.bindingNode) && ts_node_named_child_count(declarator.bindingNode) > 0) {
    for (uint32_t i = 0; i < ts_node_named_child_count(declarator.bindingNode); ++i) {
      TSNode name = ts_node_named_child(declarator.bindingNode, i);
      NodeId id = build_.add(parent, Kind::Variable, Role::Member, spanOf(whole));
      build_.setName(id, textOfNode(name), begin(name));
      build_[id].modifiers |= kDefinition;
      if (i == 0 && hasValue) expression(value, id, Role::Initialiser);
    }
    return;
  }
  if (!declarator.hasName) return;
  if (declarator.isFunction && !hasValue && !looksLikeConstruction(specifiers, declarator, place)) {
    Specifiers own = specifiers;
    for (size_t i = 0; i < siblings.size(); ++i) {
      if (siblings[i].tag == Tag::DefaultClause) own.modifiers |= kDefaulted | kDefinition;
      if (siblings[i].tag == Tag::DeleteClause) own.modifiers |= kDeleted;
      if (siblings[i].tag == Tag::PureClause) own.modifiers |= kAbstract;
    }
    if (!specifiers.hasType && lore_ && place == Place::ClassScope && lore_->forbidsCopy.count(plainName(declarator.nameNode))) return;  // noted already
    functionNode(whole, own, declarator, parent, place, className, visibility);
    return;
  }
  if (declarator.isFunction && hasValue && tagOf(value) == Tag::Number) {  // virtual void f() = 0;
    Specifiers own = specifiers;
    own.modifiers |= kAbstract;
    functionNode(whole, own, declarator, parent, place, className, visibility);
    return;
  }
  if (place == Place::NamespaceScope && isTorn(whole)) return unread(parent, spanOf(whole));
  std::string name = plainName(declarator.nameNode);
  if (isReserved(name)) return unread(parent, spanOf(whole));
  NodeId id = build_.add(parent, Kind::Variable, Role::Member, spanOf(whole));
  attachTemplate(id);
  build_.setName(id, name, begin(lastNameNode(declarator.nameNode)));
  if (place == Place::NamespaceScope) values_.insert(name);
  uint32_t modifiers = specifiers.modifiers | visibility;
  if (specifiers.constObject && !declarator.pointer && !declarator.reference) modifiers |= kConst;
  if (declarator.constPointer) modifiers |= kConst;
  bool declarationOnly = ((modifiers & kExtern) && !hasValue) ||
                         (place == Place::ClassScope && (modifiers & kStatic) && !(modifiers & (kInline | kConstant)) && !hasValue);
  if (!declarationOnly) modifiers |= kDefinition;
  build_[id].modifiers |= modifiers;
  Declarator forType = declarator;
  bool asConstruction = declarator.isFunction;
  if (asConstruction) {
    forType.isFunction = false;
  }
  typeRef(specifiers.type, specifiers.hasType, spanOf(whole), id, Role::Type, forType, specifiers.constObject);
  if (asConstruction) {
    TSNode list = fieldOf(declarator.functionNode, grammar().parameters);
    Children kids(*this, list);
    if (declarator.pointer || declarator.reference) {  // Mast* Mast::mast(nullptr);
      for (size_t i = 0; i < kids.size(); ++i)
        if (kids[i].tag == Tag::ParameterDeclaration) return constructionArgument(kids[i].node, id, Role::Initialiser);
      return;
    }
    NodeId create = build_.add(id, Kind::Create, Role::Initialiser, spanOf(declarator.functionNode));
    build_[create].detail = static_cast<uint8_t>(CreateForm::Value);
    typeRef(specifiers.type, specifiers.hasType, spanOf(whole), create, Role::Type, Declarator{}, false);
    for (size_t i = 0; i < kids.size(); ++i)
      if (kids[i].tag == Tag::ParameterDeclaration) constructionArgument(kids[i].node, create, Role::Argument);
    return;
  }
  if (hasValue) {
    Tag tag = tagOf(value);
    if (tag == Tag::ArgumentList || (tag == Tag::InitList && specifiers.hasType && !declarator.array && !declarator.pointer && !declarator.reference)) {
      // Foo x(1);  Foo x{1};
      NodeId create = build_.add(id, Kind::Create, Role::Initialiser, spanOf(value));
      build_[create].detail = static_cast<uint8_t>(CreateForm::Value);
      typeRef(specifiers.type, specifiers.hasType, spanOf(whole), create, Role::Type, Declarator{}, false);
      arguments(value, create);
    } else {
      expression(value, id, Role::Initialiser);
    }
  }
}

// [lex.key]: what the grammar takes for a name where it has lost hold.
bool Lowerer::isReserved(std::string_view name) {
  static constexpr std::string_view kWords[] = {"case", "catch", "const", "delete", "do", "else", "for", "if", "new", "return", "size_t", "switch", "throw", "try", "while"};
  return std::binary_search(std::begin(kWords), std::end(kWords), name);
}

// In a text that the grammar could not read whole: does what seems to stand in the file belong to a class or function that it
// lost hold of?
bool Lowerer::isTorn(TSNode declaration) {
  if (!ts_node_has_error(root_)) return false;
  if (!braces_) braces_.emplace(written_);
  return braces_->insideBody(begin(declaration));
}

bool Lowerer::looksLikeConstruction(const Specifiers& specifiers, const Declarator& declarator, Place place) const {
  if (place == Place::ClassScope || !specifiers.hasType) return false;
  TSNode list = fieldOf(declarator.functionNode, grammar().parameters);
  if (isNull(list)) return false;
  // [class.mfct]: outside of its class a member function is only ever defined, so what is declared there is a variable.
  bool member = place == Place::NamespaceScope && tagOf(declarator.nameNode) == Tag::Qualified && !isTemplate_ && textOfNode(specifiers.type) != "void";
  // [atomics.types.generic], [thread.mutex.class]: no function can return one by value.
  std::string_view type = textOfNode(specifiers.type);
  std::string_view plain = lastPart(type.substr(0, type.find('<')));
  bool stays = plain.starts_with("atomic") || plain == "mutex" || plain == "recursive_mutex" || plain == "once_flag" || plain == "condition_variable";
  uint32_t count = ts_node_named_child_count(list);
  bool any = false;
  for (uint32_t i = 0; i < count; ++i) {
    TSNode parameter = ts_node_named_child(list, i);
    Tag tag = tagOf(parameter);
    if (tag == Tag::None || tag == Tag::Comment) continue;
    if (tag != Tag::ParameterDeclaration) return false;
    uint32_t parts = ts_node_named_child_count(parameter);
    if (parts == 0) return false;
    TSNode first = ts_node_named_child(parameter, 0);
    if (tagOf(first) != Tag::TypeIdentifier && tagOf(first) != Tag::Qualified) return false;
    bool called = parts == 2 && std::string_view(ts_node_type(ts_node_named_child(parameter, 1))) == "abstract_function_declarator";
    if (parts != 1 && !called) return false;
    bool value = values_.count(std::string(textOfNode(first))) || isNullLiteral(first, text_);
    if (place != Place::FunctionBody && !stays && !member && (called || !value)) return false;
    any = true;
  }
  return any;
}

void Lowerer::constructionArgument(TSNode parameter, NodeId create, Role role) {
  TSNode name = ts_node_named_child(parameter, 0);
  bool called = ts_node_named_child_count(parameter) == 2;
  if (!called && isNullLiteral(name, text_)) {
    literal(name, create, role, LiteralForm::Null);
    return;
  }
  NodeId into = called ? build_.add(create, Kind::Call, role, spanOf(parameter)) : create;
  NodeId id = build_.add(into, Kind::Name, called ? Role::Callee : role, spanOf(name));
  build_.setName(id, plainName(name), begin(lastNameNode(name)));
  if (!called) return;
  // Its own parameters are arguments likewise: open(store(), slot).
  TSNode list = fieldOf(ts_node_named_child(parameter, 1), grammar().parameters);
  Deeper deeper(*this);
  if (isNull(list) || tooDeep(list, into)) return;
  Children kids(*this, list);
  for (size_t i = 0; i < kids.size(); ++i)
    if (kids[i].tag == Tag::ParameterDeclaration && ts_node_named_child_count(kids[i].node) > 0) constructionArgument(kids[i].node, into, Role::Argument);
}

}  // namespace elmcart::cpp
