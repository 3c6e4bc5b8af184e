#include "source/edit.h"

#include <algorithm>

#include "source/git.h"

namespace elmcart {

Result<std::string> applyEdits(std::string_view text, std::vector<FileEdit> edits) {
  std::stable_sort(edits.begin(), edits.end(), [](const FileEdit& a, const FileEdit& b) {
    if (a.span.begin != b.span.begin) return a.span.begin < b.span.begin;
    return a.span.empty() && !b.span.empty();
  });
  std::string out;
  uint32_t at = 0;
  for (const FileEdit& edit : edits) {
    if (edit.span.begin < at || edit.span.end > text.size()) return Error{edit.path, "two edits meet at byte " + std::to_string(edit.span.begin)};
    out += text.substr(at, edit.span.begin - at);
    out += edit.text;
    at = edit.span.end;
  }
  out += text.substr(at);
  return out;
}

std::string unifiedDiff(const std::string& path, const std::string& before, const std::string& after, bool isNew, uint32_t context) {
  if (before == after) return "";
  startGit();
  git_patch* patch = nullptr;
  git_diff_options options;
  git_diff_options_init(&options, GIT_DIFF_OPTIONS_VERSION);
  options.context_lines = context;
  options.flags |= GIT_DIFF_FORCE_TEXT;
  std::string out;
  if (git_patch_from_buffers(&patch, isNew ? nullptr : before.data(), before.size(), path.c_str(), after.data(), after.size(), path.c_str(), &options) == 0) {
    git_buf buffer = {nullptr, 0, 0};
    if (git_patch_to_buf(&buffer, patch) == 0) out.assign(buffer.ptr, buffer.size);
    git_buf_dispose(&buffer);
    git_patch_free(patch);
  }
  return out;
}

}  // namespace elmcart
