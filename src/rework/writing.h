// Small pieces that the moves write with: patterns filled in, laid out in the
// manner of a file, put beside a member, declarations taken away.
#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "base/object_name.h"
#include "rework/source_scan.h"

namespace elmcart {

// The pattern with {word} replaced for each word given; what is not given stays.
std::string filled(std::string_view pattern, const std::vector<std::pair<std::string_view, std::string>>& words);

// \n of a text becomes the file's line end and `indent`, \t one `unit`; blank lines bear no blanks.
std::string laidOut(SourceScan& scan, const std::string& text, FileIndex file, const std::string& indent, const std::string& unit);

// Behind the text in three quotes that begins at `at`; `at` when none does, npos when it has no end.
size_t behindDocumentingText(std::string_view source, size_t at);

// A class's name as code writes it, without what tells it from others of that name.
std::string plainName(const Program& p, TypeIndex type);

// The class of that name in the scope of another; kNone: there is none.
TypeIndex typeBeside(const Program& p, TypeIndex type, const std::string& name);
// A file named so in the folder of another, with its ending.
std::string fileBeside(const Program& p, Place other, const std::string& name);

// The indentation of a class's members, and by how much it is deeper than the class's own.
std::string memberIndent(const Program& p, SourceScan& scan, TypeIndex type);
std::string unitIndent(const Program& p, SourceScan& scan, TypeIndex type);

// Puts an import line where the file has such lines, unless it is there.
void importLine(const Program& p, SourceScan& scan, FileIndex file, const std::string& line, std::vector<FileEdit>& edits);

// import { TideTable } from "./tides", from tides import TideTable: names another thing beside the
// class. A text: why that cannot be done.
std::string nameBeside(const Program& p, SourceScan& scan, FileIndex file, const std::string& name, const std::string& other, std::vector<FileEdit>& edits);

// What the lines of a file that stand one level deep begin with.
std::string unitOfFile(SourceScan& scan, FileIndex file);

// What a function calls its object: the first of its own words for it; empty: it has none.
std::string wordForObject(const Program& p, SourceScan& scan, Place function);
// The same where it is named in front of the function's name: func (b *Book) add(). Empty: it is not.
std::string objectNamedInFront(const Program& p, SourceScan& scan, Place function);

// Where the lines of a body begin: behind its bracket, or at its first line; behind a text that documents it.
uint32_t bodyLinesBegin(const Program& p, SourceScan& scan, Place body);
// Puts a statement in front of all others of a body. A text: why it cannot.
std::string insertFirst(const Program& p, SourceScan& scan, Place body, const std::string& statement, std::vector<FileEdit>& edits);
// Puts the lines of a body from `from` to `to` behind a head, one level deeper, and an end below them.
void wrapLines(SourceScan& scan, FileIndex file, Span lines, const std::string& indent, const std::string& unit, const std::string& head, std::string_view end, std::vector<FileEdit>& edits);

// Puts a field among those that stand first in a class, and a constructor, laid out, behind
// them; either may be empty. False: the class's body could not be read.
bool addMembers(const Program& p, SourceScan& scan, TypeIndex type, const std::string& field, const std::string& constructor, const std::string& indent, std::vector<FileEdit>& edits);

// Puts an item behind the others of a list, whose brackets stand around the span; a list with one a line goes on so.
void appendItem(const Program& p, SourceScan& scan, FileIndex file, Span list, const std::string& item, std::vector<FileEdit>& edits);

// The whole lines of a declaration that has its lines to itself; nothing when it has not.
std::optional<Span> declarationLines(const Program& p, SourceScan& scan, Place place);

}  // namespace elmcart
