#include "program/load.h"

#include <algorithm>
#include <array>
#include <atomic>
#include <functional>
#include <map>
#include <memory>
#include <mutex>

#include "base/parallel.h"
#include "base/text.h"
#include "languages/comments.h"
#include "languages/grammar.h"
#include "languages/parse_guard.h"
#include "languages/parse_memory.h"
#include "lowered/binary.h"
#include "program/generated.h"
#include "source/revision.h"
#include "store/fingerprint.h"

namespace elmcart {
namespace {

void leaveUnread(LoweredFile& file, std::string reason) {
  file.nodes.resize(1);
  file.nodes[0] = {};
  file.nodes[0].kind = Kind::Unit;
  file.comments.clear();
  file.unreadBytes = file.textSize;
  file.problem = std::move(reason);
}

// Is one of the words in it without which no phrase below can be? Most comments
// have none, and all of them are looked through: as Wu and Manber's search does, by
// the last two bytes of a window, which tell how far the next one may lie.
class TellingWords {
 public:
  constexpr TellingWords() {
    for (uint8_t& shift : shift_) shift = kWindow - 1;
    for (std::string_view word : kWords)
      for (size_t i = 1; i < kWindow; ++i) {
        uint8_t& shift = shift_[pair(word[i - 1], word[i])];
        shift = std::min(shift, static_cast<uint8_t>(kWindow - 1 - i));
      }
  }

  bool in(std::string_view text) const {
    for (size_t at = kWindow - 1; at < text.size();) {
      size_t shift = shift_[pair(text[at - 1], text[at])];
      if (shift == 0 && startsOne(text.substr(at + 1 - kWindow))) return true;
      at += std::max<size_t>(shift, 1);
    }
    return false;
  }

 private:
  static constexpr std::array<std::string_view, 6> kWords = {"singleton", "only one", "exactly one", "single instance", "one instance per process", "make a second"};
  static constexpr size_t kWindow = 8;  // no word is shorter

  // The same for both cases of a letter; what else falls together only costs a look.
  static constexpr size_t pair(char a, char b) { return (static_cast<size_t>(a) & 31) << 5 | (static_cast<size_t>(b) & 31); }
  static bool startsOne(std::string_view text) {
    return std::any_of(kWords.begin(), kWords.end(), [&](std::string_view word) {
      return text.size() >= word.size() && std::equal(word.begin(), word.end(), text.begin(), [](char a, char b) { return a == (b >= 'A' && b <= 'Z' ? b - 'A' + 'a' : b); });
    });
  }

  std::array<uint8_t, 1024> shift_{};
};

constexpr TellingWords kTellingWords;

constexpr std::string_view kLeadingAway[] = {" by ", " with ", " for ", " of ", " to ", " from ", " in ", " on ", " get ", " gets ", " returns ", " return ", " uses ", " use ", " accept ", " accepts ", " takes ", " take ", " wraps ", " holds ", " makes ", " creates ", " backs "};

// Is the word at `at` said of what the comment stands above: near the beginning of a sentence, or behind "is a"? Not "accepts a singleton
// endpoint", "is backed by a singleton object".
bool isOfItself(std::string_view words, size_t at) {
  constexpr size_t kFew = 3;
  size_t stop = words.find_last_of(".;:{\"", at == 0 ? 0 : at - 1), begin = at == 0 || stop == std::string_view::npos ? 0 : stop + 1;
  std::string_view before = words.substr(begin, at - begin);
  auto count = [](std::string_view text) {
    size_t out = 0;
    for (size_t i = 0; i < text.size(); ++i) out += isWordByte(text[i]) && (i == 0 || !isWordByte(text[i - 1]));
    return out;
  };
  if (size_t is = before.rfind(" is "); is != std::string_view::npos) {
    std::string_view between = before.substr(is + 4);
    return std::none_of(std::begin(kLeadingAway), std::end(kLeadingAway), [&](std::string_view word) { return (" " + std::string(between)).find(word) != std::string::npos; });
  }
  bool quoted = begin > 0 && words[begin - 1] == '"';
  return !quoted && count(before) <= kFew && std::none_of(std::begin(kLeadingAway), std::end(kLeadingAway), [&](std::string_view word) { return (" " + std::string(before)).find(word) != std::string::npos; });
}

// "is a singleton", "Singleton.", "the singleton instance": not "a singleton list of names".
bool namesSingleton(std::string_view words) {
  constexpr std::string_view kFollowing[] = {"class", "object", "instance", "pattern", "that", "which", "for", "of", "to", "so", "since", "because", "and", "with", "by", "bean", "service", "is", "in", "used", "holding"};
  constexpr std::string_view kWord = "singleton";
  for (size_t at = words.find(kWord); at != std::string_view::npos; at = words.find(kWord, at + 1)) {
    std::string_view rest = words.substr(at + kWord.size());
    size_t begin = rest.find_first_not_of(" \t\r\n*/");
    if (rest.empty() || begin == std::string_view::npos || !isWordByte(rest[begin])) {
      if (isOfItself(words, at)) return true;
      continue;
    }
    if (begin == 0) continue;
    rest.remove_prefix(begin);
    std::string_view next = rest.substr(0, std::find_if(rest.begin(), rest.end(), [](char c) { return !isWordByte(c); }) - rest.begin());
    if (std::find(std::begin(kFollowing), std::end(kFollowing), next) != std::end(kFollowing) && isOfItself(words, at)) return true;
  }
  return false;
}

bool hasAny(std::string_view words, std::initializer_list<std::string_view> phrases) {
  return std::any_of(phrases.begin(), phrases.end(), [&](std::string_view phrase) { return words.find(phrase) != std::string_view::npos; });
}

// "The manager is a singleton": whom the sentence is about, when that is not plainly what follows.
std::string_view subjectOf(std::string_view words) {
  constexpr std::string_view kItself[] = {"class", "type", "object", "instance", "it", "this", "that", "there", "which", "struct", "module", "following"};
  size_t at = std::min({words.find("singleton"), words.find("one instance"), words.find("single instance")});
  size_t is = at == std::string_view::npos ? at : words.rfind(" is ", at);
  size_t stop = at == std::string_view::npos ? at : words.rfind('.', at);
  if (is == std::string_view::npos || (stop != std::string_view::npos && stop > is)) return {};
  size_t begin = is;
  while (begin > 0 && isWordByte(words[begin - 1])) --begin;
  std::string_view noun = words.substr(begin, is - begin);
  return std::find(std::begin(kItself), std::end(kItself), noun) != std::end(kItself) ? std::string_view{} : noun;
}

// "the global TideTable singleton": a class that is named right before.
std::string_view namedBefore(std::string_view comment, std::string_view words) {
  size_t at = words.find("singleton");
  if (at == std::string_view::npos || at < 2 || words[at - 1] != ' ') return {};
  size_t end = at - 1, begin = end;
  while (begin > 0 && isWordByte(words[begin - 1])) --begin;
  bool capital = std::any_of(comment.begin() + static_cast<std::ptrdiff_t>(begin + (begin < end)), comment.begin() + static_cast<std::ptrdiff_t>(end), [](unsigned char c) { return std::isupper(c); });
  bool shout = std::none_of(comment.begin() + static_cast<std::ptrdiff_t>(begin), comment.begin() + static_cast<std::ptrdiff_t>(end), [](unsigned char c) { return std::islower(c); });
  return capital && !shout ? words.substr(begin, end - begin) : std::string_view{};
}

// Does a comment say of what follows that there is one of it? The note then to be left: with whom it names, if it names one.
std::string notesOne(std::string_view comment) {
  if (comment.size() > 4000 || !kTellingWords.in(comment)) return {};
  std::string words = lowerCase(comment);
  if (hasAny(words, {"not a singleton", "no singleton", "non-singleton", "bound as a singleton", "registered as a singleton", "operate as a singleton", "used as a singleton", "exists as exactly one", "is a single instance of", "of a single instance of", "of one instance of", "one instance of each", "each class", "each type", "every class", "can have only one"})) return {};
  bool says = namesSingleton(words) || hasAny(words, {"only one instance", "exactly one instance", "a single instance", "there is only one", "there must be only one", "there should be only one", "there is exactly one", "one instance per process", "never make a second"});
  if (!says) return {};
  std::string_view subject = subjectOf(words);
  if (subject.empty()) subject = namedBefore(comment, words);
  return std::string(kMeansOne) + (subject.empty() ? "" : " ") + std::string(subject);
}

// The words of a comment in small letters with one space between, without the marks of its lines.
std::string wordsOf(std::string_view comment) {
  std::string out;
  for (char c : comment) {
    bool gap = c == ' ' || c == '\t' || c == '\n' || c == '\r' || c == '/' || c == '*' || c == '#';
    if (!gap) out += c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
    else if (!out.empty() && out.back() != ' ') out += ' ';
  }
  return out;
}

// Do the words of a comment say of a declaration that it is not made for several threads, or for the start of the program alone?
bool saysOneThread(std::string_view words) {
  return hasAny(words, {"not thread safe", "not thread-safe", "not threadsafe", "isn't thread safe", "isn't thread-safe", "only one thread is running", "not be called from several threads", "not be called concurrently", "called before any thread", "called from the main thread", "called on the main thread", "main thread only", "only be called during initiali", "only be called at initiali", "only be used during initiali", "only called during initiali"});
}

// Do they say of a function that its callers hold a lock?
bool saysLockHeld(std::string_view words) {
  if (hasAny(words, {"not be held", "not held", "not hold", "n't held", "n't hold", "without hold", "unless", "releases the", "if it is held"})) return false;
  return hasAny(words, {" is held", " be held", " already held", "has the lock", "have the lock", "hold the lock", "holds the lock", "holding the lock", "holds the mutex", "hold the mutex", "holding the mutex", "must hold ", "caller holds ", "callers hold ", "called with the lock", "called under the lock", "lock held", "mutex held"});
}

// The line before the declaration that a comment is about: the comment's last, or, where it stands further in than the
// code on the line above it, the one before that code.
uint32_t lineBefore(const LoweredFile& file, std::string_view text, Span first, uint32_t lastLine) {
  uint32_t line = file.lineOf(first.begin);
  if (line < 2) return lastLine;
  auto indent = [&](uint32_t of) { return text.find_first_not_of(" \t", file.lineStarts[of - 1]) - file.lineStarts[of - 1]; };
  size_t above = indent(line - 1), own = indent(line);
  bool code = text[file.lineStarts[line - 2] + above] != '\n' && text[file.lineStarts[line - 2] + above] != '\r';
  return code && above < own && file.lineStarts[line - 1] + own == first.begin ? line - 2 : lastLine;
}

// `lasting`: would another run find the same?
LoweredFile lowerOne(const Language& language, std::string_view path, std::string_view text, const Language::TreeLore* lore, bool& lasting) {
  LoweredFile file;
  file.path = path;
  file.language = language.id;
  file.textSize = static_cast<uint32_t>(text.size());
  file.nodes.reserve(text.size() / 11 + 16);
  file.lineStarts = lineStartsOf(text);
  file.generated = isGenerated(path, text);
  try {
    ParseMemory memory;
    if (language.comments) {
      WithoutComments code(text, *language.comments);
      language.lower(code.text(), lore, file);
      code.giveBack(file);
    } else {
      language.lower(text, lore, file);
    }
  } catch (const LeftUnread& error) {
    lasting = false;
    leaveUnread(file, error.what());
  } catch (const std::exception& error) {
    // A fault of ours must not take the other files along.
    leaveUnread(file, std::string("left unread, for reading it failed inside Elm Cart (") + error.what() + "); please report it");
  }
  // There was room for many more than most files have.
  file.nodes.shrink_to_fit();
  fillParents(file);
  file.names.seal();
  constexpr std::string_view kToUs = "elmcart:";
  bool addressed = std::search(text.begin(), text.end(), std::boyer_moore_horspool_searcher(kToUs.begin(), kToUs.end())) != text.end();
  for (size_t i = 0; addressed && i < file.comments.size(); ++i) {
    Span span = file.comments[i];
    std::string_view comment = text.substr(span.begin, span.size());
    size_t at = comment.find(kToUs);
    if (at != std::string_view::npos) file.notes.emplace_back(file.lineOf(span.begin), std::string(comment.substr(at + kToUs.size())));
  }
  // Comments that follow each other with nothing but blanks between are one.
  for (size_t first = 0, last; first < file.comments.size(); first = last + 1) {
    last = first;
    auto textOf = [&](size_t from, size_t to) { return text.substr(file.comments[from].begin, file.comments[to].end - file.comments[from].begin); };
    std::string meansOne = notesOne(textOf(first, first));
    for (; last + 1 < file.comments.size() && trim(text.substr(file.comments[last].end, file.comments[last + 1].begin - file.comments[last].end)).empty(); ++last)
      if (std::string says = notesOne(textOf(last + 1, last + 1)); !says.empty()) meansOne = std::move(says);
    uint32_t lastLine = file.lineOf(file.comments[last].end - 1);
    if (!meansOne.empty()) file.notes.emplace_back(lastLine, std::move(meansOne));
    std::string_view whole = textOf(first, last);
    constexpr std::string_view kHints[] = {"hread", "nitiali", " held", "old the", "olds the", "olding", " lock"};
    if (whole.size() > 4000 || std::none_of(std::begin(kHints), std::end(kHints), [&](std::string_view hint) { return whole.find(hint) != std::string_view::npos; })) continue;
    std::string words = wordsOf(whole);
    uint32_t before = lineBefore(file, text, file.comments[first], lastLine);
    if (saysLockHeld(words)) file.notes.emplace_back(before, std::string(kLockHeld) + wordsSpaced(whole));
    if (saysOneThread(words)) file.notes.emplace_back(before, std::string(kOneThread));
  }
  return file;
}

// Pieces that several threads finish, handed on in order and one at a time, by the
// thread that happens to have the next one: the others need not wait.
class InOrder {
 public:
  InOrder(size_t count, std::function<void(size_t)> handOn) : ready_(count), handOn_(std::move(handOn)) {}

  void ready(size_t i) {
    ready_[i].store(true, std::memory_order_release);
    if (std::unique_lock turn(turn_, std::try_to_lock); turn) goOn();
  }
  // Once all are ready.
  void finish() {
    std::lock_guard turn(turn_);
    goOn();
  }

 private:
  void goOn() {
    for (; next_ < ready_.size() && ready_[next_].load(std::memory_order_acquire); ++next_) handOn_(next_);
  }

  std::vector<std::atomic<bool>> ready_;
  std::function<void(size_t)> handOn_;
  std::mutex turn_;
  size_t next_ = 0;
};

}  // namespace

namespace {

UnreadFile unreadOf(const LoweredFile& file, std::string_view text) {
  UnreadFile out;
  if (file.unreadBytes == 0) return out;
  out.path = file.path;
  out.bytes = file.unreadBytes;
  uint32_t first = UINT32_MAX;
  for (const Node& node : file.nodes)
    if (node.kind == Kind::Unread) first = std::min(first, node.span.begin);
  if (first >= text.size()) first = 0;  // the whole file
  while (first + 1 < text.size() && isBlank(text[first])) ++first;
  out.line = static_cast<uint32_t>(std::upper_bound(file.lineStarts.begin(), file.lineStarts.end(), first) - file.lineStarts.begin());
  size_t begin = text.rfind('\n', first), end = text.find('\n', first);
  begin = begin == std::string_view::npos ? 0 : begin + (begin < first ? 1 : 0);
  std::string_view line = trim(text.substr(begin, end == std::string_view::npos || end <= begin ? std::string_view::npos : end - begin));
  constexpr size_t kMost = 80;
  size_t cut = std::min(line.size(), kMost);
  while (cut < line.size() && cut > 0 && (static_cast<unsigned char>(line[cut]) & 0xC0) == 0x80) --cut;
  out.text = std::string(line.substr(0, cut)) + (cut < line.size() ? "…" : "");
  return out;
}

}  // namespace

bool isWanted(std::string_view relative, const std::string& absolute) {
  bool needsText = false;
  return mayBeSource(relative, needsText) && (!needsText || saysItsLanguageAt(absolute));
}

Result<SourceTree> readTree(const std::string& path, const LoadOptions& options) {
  auto walked = walkTree(path, options.walk, isWanted);
  if (!walked) return walked.error();
  SourceTree out;
  out.root = walked->root;
  out.problems = std::move(walked->problems);
  out.ignored = walked->ignored;
  size_t count = walked->files.size();
  std::vector<std::string> texts(count);
  std::vector<Error> failures(count);
  std::vector<size_t> sizes;
  for (const FoundFile& file : walked->files) sizes.push_back(file.size);
  forEachLargestFirst(sizes, options.jobs, [&](size_t i) {
    auto text = readSource(walked->files[i].absolute);
    if (text) texts[i] = std::move(*text);
    else failures[i] = {walked->files[i].path, text.error().reason};
  });
  for (size_t i = 0; i < count; ++i) {
    if (!failures[i].reason.empty()) {
      out.problems.push_back(failures[i]);
      continue;
    }
    const Language* language = languageOf(walked->files[i].path, texts[i]);
    if (!language) continue;  // a script of another language
    out.languages.push_back(language);
    out.texts.push_back(std::move(texts[i]));
    out.files.push_back(std::move(walked->files[i]));
  }
  return out;
}

Result<SourceTree> readTreeAt(const std::string& root, const std::string& revision, const LoadOptions& options) {
  auto files = filesAtRevision(root, revision, options.walk, [](std::string_view path, std::string_view text) {
    bool needsText = false;
    return mayBeSource(path, needsText) && (!needsText || saysItsLanguage(text));
  });
  if (!files) return files.error();
  SourceTree out;
  out.root = root;
  for (RevisionFile& file : *files) {
    const Language* language = languageOf(file.path, file.text);
    if (!language) continue;  // a script of another language
    out.languages.push_back(language);
    out.files.push_back({file.path, root + "/" + file.path, file.text.size()});
    out.texts.push_back(std::move(file.text));
  }
  return out;
}

LoadedTree lowerTree(SourceTree tree, unsigned jobs, Cache* cache, const std::function<void(LoweredFile)>& take) {
  LoadedTree out;
  out.problems = std::move(tree.problems);
  size_t count = tree.files.size();
  struct Lore {
    std::unique_ptr<Language::TreeLore> lore;
    uint64_t fingerprint = 0;
  };
  std::map<const Language*, Lore> lore;
  for (const Language& language : languages()) {
    if (!language.learn) continue;
    std::vector<std::string_view> views;
    bool any = false;
    for (size_t i = 0; i < count; ++i) {
      if (familyOf(*tree.languages[i]) != familyOf(language)) continue;
      views.push_back(tree.texts[i]);
      any |= tree.languages[i] == &language;
    }
    if (!any) continue;
    Lore& known = lore[&language];
    known.lore = language.learn(views, jobs);
    known.fingerprint = known.lore->fingerprint();
  }
  std::vector<LoweredFile> lowered(count);
  std::vector<UnreadFile> unread(count);
  InOrder handOver(count, [&](size_t i) {
    LoweredFile& file = lowered[i];
    if (!file.problem.empty()) out.problems.push_back({file.path, file.problem});
    out.bytes += file.textSize;
    out.unreadBytes += file.unreadBytes;
    out.unreadFiles += file.unreadBytes > 0;
    if (file.unreadBytes > 0) out.unread.push_back(std::move(unread[i]));
    take(std::move(file));
  });
  // Small ones keep their order, so that they can be handed over as they come.
  constexpr size_t kSmall = 1 << 16;
  std::vector<size_t> sizes;
  for (const std::string& text : tree.texts) sizes.push_back(std::max(text.size(), kSmall));
  std::atomic<size_t> fromCache = 0;
  std::atomic<bool> allLasting = true;
  auto lowerIt = [&](size_t i) {
    const Language& language = *tree.languages[i];
    WorkingOn now("reading", tree.files[i].path);
    auto known = lore.find(&language);
    std::string text = std::move(tree.texts[i]);
    CacheKey key{};
    if (cache) {
      key = KeyMaker().add(buildFingerprint()).add(language.id).add(tree.files[i].path).add(known == lore.end() ? 0 : known->second.fingerprint).add(text).key();
      if (auto bytes = cache->get(key)) {
        LoweredFile file;
        if (fromBinary(*bytes, file) && file.textSize == text.size()) {
          file.path = tree.files[i].path;
          file.language = language.id;
          file.lineStarts = lineStartsOf(text);
          fillParents(file);
          lowered[i] = std::move(file);
          unread[i] = unreadOf(lowered[i], text);
          ++fromCache;
          return;
        }
      }
    }
    bool lasting = true;
    lowered[i] = lowerOne(language, tree.files[i].path, text, known == lore.end() ? nullptr : known->second.lore.get(), lasting);
    unread[i] = unreadOf(lowered[i], text);
    if (!lasting) allLasting = false;
    else if (cache) cache->put(key, toBinary(lowered[i]));
  };
  forEachLargestFirst(sizes, jobs, [&](size_t i) {
    lowerIt(i);
    handOver.ready(i);
  });
  handOver.finish();
  out.fromCache = fromCache;
  out.lasting = allLasting;
  std::sort(out.problems.begin(), out.problems.end(), [](const Error& a, const Error& b) { return a.subject < b.subject; });
  return out;
}

LoweredFile lowerText(std::string_view path, std::string_view text) {
  const Language* language = languageOf(path, text);
  std::unique_ptr<Language::TreeLore> lore;
  if (language->learn) lore = language->learn(std::vector<std::string_view>{text}, 1);
  bool lasting = true;
  return lowerOne(*language, path, text, lore.get(), lasting);
}

}  // namespace elmcart
