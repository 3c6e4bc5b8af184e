#include "languages/cpp/conditions.h"

#include <algorithm>

#include "base/text.h"
#include "languages/cpp/prepare.h"

namespace elmcart {
namespace {

bool isDigitByte(char c) { return c >= '0' && c <= '9'; }

class Condition {
 public:
  explicit Condition(std::string_view text) : text_(text) {}
  Tristate read() {
    Tristate value = orExpression();
    space();
    return at_ == text_.size() && !failed_ ? value : std::nullopt;
  }

  static Tristate defined(std::string_view name) {
    static constexpr std::string_view kDefined[] = {"__cplusplus", "__linux__", "__linux", "linux", "__unix__", "__unix", "__GNUC__", "__x86_64__", "__ELF__"};
    static constexpr std::string_view kUndefined[] = {
        "_WIN32", "WIN32", "_WIN64", "WIN64", "__WIN32__", "_WINDOWS", "_MSC_VER", "__MINGW32__", "__CYGWIN__", "__APPLE__", "__MACH__",
        "__FreeBSD__", "__NetBSD__", "__OpenBSD__", "__ANDROID__", "ANDROID", "__sun", "__BORLANDC__", "__OBJC__", "SWIG", "__HAIKU__", "__BEOS__", "__EMSCRIPTEN__", "_AIX", "__hpux", "DOXYGEN", "DOXYGEN_SHOULD_SKIP_THIS", "Q_MOC_RUN", "_WIN32_WCE", "__cplusplus_winrt", "__cplusplus_cli", "__ppc__", "__EMX__", "MSDOS", "__OS2__"};
    for (std::string_view known : kDefined) if (name == known) return true;
    for (std::string_view known : kUndefined) if (name == known) return false;
    return std::nullopt;
  }

 private:
  void fail() {
    failed_ = true;
    at_ = text_.size();
  }
  void space() { while (at_ < text_.size() && isBlank(text_[at_])) ++at_; }
  bool eat(std::string_view token) {
    space();
    if (text_.compare(at_, token.size(), token) != 0) return false;
    at_ += token.size();
    return true;
  }
  Tristate orExpression() {
    Tristate left = andExpression();
    while (eat("||")) {
      Tristate right = andExpression();
      if (left == Tristate(true) || right == Tristate(true)) left = true;
      else if (!left || !right) left = std::nullopt;
    }
    return left;
  }
  Tristate andExpression() {
    Tristate left = unary();
    while (eat("&&")) {
      Tristate right = unary();
      if (left == Tristate(false) || right == Tristate(false)) left = false;
      else if (!left || !right) left = std::nullopt;
    }
    return left;
  }
  Tristate unary() {
    if (++depth_ > 200) { fail(); return std::nullopt; }
    Tristate value = unaryInner();
    --depth_;
    return value;
  }
  Tristate unaryInner() {
    space();
    if (at_ + 1 < text_.size() && text_[at_] == '!' && text_[at_ + 1] != '=') {
      ++at_;
      Tristate value = unary();
      return value ? Tristate(!*value) : std::nullopt;
    }
    Tristate value;
    if (eat("(")) {
      value = orExpression();
      if (!eat(")")) fail();
    } else {
      size_t end = wordEnd(text_, at_);
      std::string_view word = text_.substr(at_, end - at_);
      if (end == at_) fail();
      else at_ = end;
      if (word == "defined") {
        bool parenthesis = eat("(");
        space();
        end = wordEnd(text_, at_);
        value = defined(text_.substr(at_, end - at_));
        at_ = end;
        if (parenthesis && !eat(")")) fail();
      } else if (!word.empty() && isDigitByte(word[0])) {
        value = word.find_first_not_of("0uUlLxX") != std::string_view::npos;
      } else if (defined(word) == Tristate(false)) {
        value = false;  // [cpp.cond]: an undefined identifier is 0
      } else if (word == "true" || word == "false") {
        value = word == "true";
      }
    }
    // A comparison: both sides are read over, nothing is known of it.
    space();
    static constexpr std::string_view kOperators[] = {"==", "!=", "<=", ">=", "<", ">", "+", "-", "*", "/", "%"};
    for (std::string_view op : kOperators) {
      if (at_ <= text_.size() && text_.compare(std::min(at_, text_.size()), op.size(), op) == 0) {
        at_ += op.size();
        (void)unary();
        return std::nullopt;
      }
    }
    if (at_ < text_.size() && text_[at_] == '(') {  // a call such as __has_include(...)
      size_t end = closingParenthesis(text_, at_);
      if (end == std::string_view::npos) fail();
      else at_ = end;
      return std::nullopt;
    }
    return value;
  }

  std::string_view text_;
  size_t at_ = 0;
  int depth_ = 0;
  bool failed_ = false;
};

}  // namespace

Tristate knownOfCondition(std::string_view condition) { return Condition(condition).read(); }
Tristate knownToBeDefined(std::string_view macro) { return Condition::defined(macro); }

}  // namespace elmcart
