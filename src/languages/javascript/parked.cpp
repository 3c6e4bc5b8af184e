#include "languages/javascript/parked.h"

#include "base/text.h"

namespace elmcart {

std::unique_ptr<Language::TreeLore> learnParked(std::span<const std::string_view> texts, unsigned) {
  auto lore = std::make_unique<ScriptLore>();
  for (std::string_view text : texts)
    for (std::string_view object : {"globalThis", "window", "global"})
      for (size_t at = text.find(object); at != std::string_view::npos; at = text.find(object, at + 1)) {
        size_t from = at + object.size();
        if ((at > 0 && (isWordByte(text[at - 1]) || text[at - 1] == '.')) || from >= text.size() || (text[from] != '.' && text[from] != '[')) continue;
        bool member = text[from] == '.';
        size_t end = ++from;
        while (end < text.size() && (member ? isWordByte(text[end]) || text[end] == '$' : text[end] != ']' && text[end] != '\n')) ++end;
        std::string_view name = text.substr(from, end - from);
        if (!member && end < text.size()) ++end;
        while (end < text.size() && isBlank(text[end])) ++end;
        // Assigned, and not compared; what the platform calls is its own.
        std::string_view behind = text.substr(end, 3);
        bool assigned = (behind.substr(0, 1) == "=" && behind.substr(1, 1) != "=" && behind.substr(1, 1) != ">") || behind == "?\?=" || behind == "||=";
        bool handler = name.size() > 2 && name.substr(0, 2) == "on" && name[2] >= 'a' && name[2] <= 'z';
        if (!assigned || name.empty() || handler || name == "location" || name.size() > 80) continue;
        bool quoted = !member && name.size() > 2 && (name[0] == '\'' || name[0] == '"');
        lore->parked.insert(member ? std::string(name) : quoted ? std::string(name.substr(1, name.size() - 2)) : "[" + std::string(name) + "]");
      }
  return lore;
}

}  // namespace elmcart
