#include "languages/comments.h"

#include <algorithm>
#include <array>

namespace elmcart {
namespace {

// The offset behind the string that begins with the mark at `at`.
size_t endOfQuote(std::string_view text, size_t at, const QuoteForm& quote) {
  for (at += quote.mark.size(); at < text.size(); ++at) {
    if (text[at] == '\\' && quote.escapes) ++at;
    else if (text[at] == '\n' && !quote.overLines) return at;
    else if (text[at] == quote.mark[0] && text.substr(at, quote.mark.size()) == quote.mark) return at + quote.mark.size();
  }
  return text.size();
}

}  // namespace

WithoutComments::WithoutComments(std::string_view text, const CommentForm& form) : whole_(text) {
  std::array<bool, 256> matters{};
  matters['/'] = true;
  for (const QuoteForm& quote : form.quotes) matters[static_cast<unsigned char>(quote.mark[0])] = true;
  size_t copied = 0, at = 0;
  for (;;) {
    while (at < text.size() && !matters[static_cast<unsigned char>(text[at])]) ++at;
    if (at >= text.size()) break;
    if (text[at] != '/') {
      auto quote = std::find_if(form.quotes.begin(), form.quotes.end(), [&](const QuoteForm& q) { return text.substr(at, q.mark.size()) == q.mark; });
      at = quote == form.quotes.end() ? at + 1 : endOfQuote(text, at, *quote);
      continue;
    }
    char next = at + 1 < text.size() ? text[at + 1] : ' ';
    size_t end = next == '/' ? std::min(text.find('\n', at), text.size()) : next == '*' ? text.find("*/", at + 2) : std::string_view::npos;
    if (end == std::string_view::npos) {
      ++at;
      continue;
    }
    if (next == '*') end += 2;
    cut({static_cast<uint32_t>(at), static_cast<uint32_t>(end)}, copied);
    at = end;
  }
  if (cuts_.empty()) return;
  text_ += text.substr(copied);
  before_.resize(text_.size() / kBlock + 1);
  for (uint32_t block = 0, cuts = 0; block < before_.size(); ++block) {
    while (cuts < cuts_.size() && cuts_[cuts].at < block * kBlock) ++cuts;
    before_[block] = cuts;
  }
}

void WithoutComments::cut(Span comment, size_t& copied) {
  text_ += whole_.substr(copied, comment.begin - copied);
  copied = comment.end;
  uint32_t before = cuts_.empty() ? 0 : cuts_.back().removed;
  cuts_.push_back({static_cast<uint32_t>(text_.size()), before + comment.size() - 1});
  text_ += whole_.substr(comment.begin, comment.size()).find('\n') == std::string_view::npos ? ' ' : '\n';
  comments_.push_back(comment);
}

uint32_t WithoutComments::whole(uint32_t offset) const {
  uint32_t cuts = before_[offset / kBlock];
  while (cuts < cuts_.size() && cuts_[cuts].at < offset) ++cuts;
  return cuts == 0 ? offset : offset + cuts_[cuts - 1].removed;
}

void WithoutComments::giveBack(LoweredFile& file) {
  if (!file.problem.empty() || cuts_.empty()) return;
  for (Node& node : file.nodes) {
    uint32_t size = node.span.size();
    node.span = {whole(node.span.begin), whole(node.span.end)};
    node.nameBegin = whole(node.nameBegin);
    if (node.kind == Kind::Unread) file.unreadBytes += node.span.size() - size;
  }
  file.comments = std::move(comments_);
}

}  // namespace elmcart
