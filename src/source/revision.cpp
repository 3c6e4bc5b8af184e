#include "source/revision.h"

#include <git2.h>

#include <algorithm>
#include <filesystem>
#include <memory>

namespace elmcart {
namespace {

struct Library {
  Library() { git_libgit2_init(); }
  ~Library() { git_libgit2_shutdown(); }
};

template <typename T, void (*Free)(T*)>
using Owned = std::unique_ptr<T, decltype([](T* one) { Free(one); })>;

std::string lastError(const std::string& otherwise) {
  const git_error* error = git_error_last();
  return error && error->message ? error->message : otherwise;
}

struct Collecting {
  git_repository* repository;
  std::string prefix;  // of the folder inside the work tree, with the slash at its end, or empty
  const WalkOptions& options;
  const std::function<bool(std::string_view, std::string_view)>& wanted;
  std::vector<RevisionFile> files;
};

int eachEntry(const char* root, const git_tree_entry* entry, void* payload) {
  auto& c = *static_cast<Collecting*>(payload);
  std::string path = std::string(root) + git_tree_entry_name(entry);
  bool folder = git_tree_entry_type(entry) == GIT_OBJECT_TREE;
  // A folder on the way to ours is gone into; others are passed by.
  if (folder && c.prefix.rfind(path + "/", 0) == 0) return 0;
  if (path.size() <= c.prefix.size() || path.compare(0, c.prefix.size(), c.prefix) != 0) return folder ? 1 : 0;
  std::string relative = path.substr(c.prefix.size());
  if (isLeftOut(relative, folder, c.options)) return folder ? 1 : 0;
  if (folder || git_tree_entry_type(entry) != GIT_OBJECT_BLOB || git_tree_entry_filemode(entry) == GIT_FILEMODE_LINK) return 0;
  git_blob* got = nullptr;
  if (git_blob_lookup(&got, c.repository, git_tree_entry_id(entry)) != 0) return 0;
  Owned<git_blob, git_blob_free> blob(got);
  size_t size = static_cast<size_t>(git_blob_rawsize(got));
  if (size > kLargestFile) return 0;
  std::string_view text(static_cast<const char*>(git_blob_rawcontent(got)), size);
  if (text.substr(0, 8192).find('\0') != std::string_view::npos || !c.wanted(relative, text)) return 0;
  c.files.push_back({relative, std::string(text)});
  return 0;
}

}  // namespace

Result<std::vector<RevisionFile>> filesAtRevision(const std::string& folder, const std::string& revision, const WalkOptions& options,
                                                  const std::function<bool(std::string_view path, std::string_view text)>& wanted) {
  namespace fs = std::filesystem;
  Library library;
  git_repository* opened = nullptr;
  if (git_repository_open_ext(&opened, folder.c_str(), 0, nullptr) != 0) return Error{folder, "is in no git repository"};
  Owned<git_repository, git_repository_free> repository(opened);
  const char* work = git_repository_workdir(opened);
  if (!work) return Error{folder, "its git repository has no work tree"};
  git_object* found = nullptr;
  if (git_revparse_single(&found, opened, revision.c_str()) != 0) return Error{revision, "no such revision (" + lastError("not found") + ")"};
  Owned<git_object, git_object_free> object(found);
  git_object* peeled = nullptr;
  if (git_object_peel(&peeled, found, GIT_OBJECT_TREE) != 0) return Error{revision, "names no tree of files"};
  Owned<git_object, git_object_free> tree(peeled);
  std::error_code error;
  std::string prefix = fs::relative(fs::canonical(folder, error), fs::canonical(work, error), error).generic_string();
  if (error) return Error{folder, "cannot be told from the work tree: " + error.message()};
  prefix = prefix == "." ? "" : prefix + "/";
  Collecting collecting{opened, prefix, options, wanted, {}};
  if (git_tree_walk(reinterpret_cast<git_tree*>(peeled), GIT_TREEWALK_PRE, eachEntry, &collecting) < 0) return Error{revision, "cannot be read: " + lastError("the tree is damaged")};
  std::sort(collecting.files.begin(), collecting.files.end(), [](const RevisionFile& a, const RevisionFile& b) { return a.path < b.path; });
  return std::move(collecting.files);
}

}  // namespace elmcart
