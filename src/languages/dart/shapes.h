// What the walk makes of each node of Dart's grammar.
#pragma once

#include "languages/shared/lowerer.h"

namespace elmcart::dart {

// Nodes that only Dart's own code lowers.
enum Own : uint8_t { kImport, kClass, kExtension, kEnum, kRun, kOperators, kUnary, kPostfix, kTernary, kIfNull, kAssign, kThrow, kReturn, kStatementRun, kLocal, kLocalFunction, kFor, kTry, kFunctionExpression, kCreate, kList, kMap, kTest, kCast, kAwait, kAlias, kSwitchStatement };

const SharedGrammar& grammar();

}  // namespace elmcart::dart
