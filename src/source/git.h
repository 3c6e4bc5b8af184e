// What all that works on a git repository through libgit2 needs.
#pragma once

#include <git2.h>

#include <filesystem>
#include <memory>
#include <string>

#include "base/result.h"

namespace elmcart {

// Once a process: starting it reads all certificates of the system.
inline void startGit() {
  static const int started = git_libgit2_init();
  (void)started;
}

template <typename T, void (*Free)(T*)>
struct GitFree {
  void operator()(T* one) const { Free(one); }
};
template <typename T, void (*Free)(T*)>
using GitOwned = std::unique_ptr<T, GitFree<T, Free>>;

inline std::string gitError(const std::string& otherwise) {
  const git_error* error = git_error_last();
  return error && error->message ? error->message : otherwise;
}

// The repository around a folder, and the folder's path inside its work tree,
// with a slash at its end, or empty.
struct GitPlace {
  GitOwned<git_repository, git_repository_free> repository;
  std::string prefix;
};

inline Result<GitPlace> gitAround(const std::string& folder) {
  namespace fs = std::filesystem;
  git_repository* opened = nullptr;
  if (git_repository_open_ext(&opened, folder.c_str(), 0, nullptr) != 0) return Error{folder, "is in no git repository"};
  GitPlace out;
  out.repository.reset(opened);
  const char* work = git_repository_workdir(opened);
  if (!work) return Error{folder, "its git repository has no work tree"};
  std::error_code error;
  std::string prefix = fs::relative(fs::canonical(folder, error), fs::canonical(work, error), error).generic_string();
  if (error) return Error{folder, "cannot be told from the work tree: " + error.message()};
  out.prefix = prefix == "." ? "" : prefix + "/";
  return out;
}

// The tree of files that a revision names.
inline Result<GitOwned<git_tree, git_tree_free>> gitTreeOf(git_repository* repository, const std::string& revision) {
  git_object* found = nullptr;
  if (git_revparse_single(&found, repository, revision.c_str()) != 0) return Error{revision, "no such revision (" + gitError("not found") + ")"};
  GitOwned<git_object, git_object_free> object(found);
  git_object* peeled = nullptr;
  if (git_object_peel(&peeled, found, GIT_OBJECT_TREE) != 0) return Error{revision, "names no tree of files"};
  return GitOwned<git_tree, git_tree_free>(reinterpret_cast<git_tree*>(peeled));
}

}  // namespace elmcart
