#include "source/revision.h"

#include <algorithm>
#include <filesystem>
#include <fstream>

#include "source/git.h"

namespace elmcart {
namespace {

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
  GitOwned<git_blob, git_blob_free> blob(got);
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
  startGit();
  auto place = gitAround(folder);
  if (!place) return place.error();
  auto tree = gitTreeOf(place->repository.get(), revision);
  if (!tree) return tree.error();
  Collecting collecting{place->repository.get(), place->prefix, options, wanted, {}};
  if (git_tree_walk(tree->get(), GIT_TREEWALK_PRE, eachEntry, &collecting) < 0) return Error{revision, "cannot be read: " + gitError("the tree is damaged")};
  std::sort(collecting.files.begin(), collecting.files.end(), [](const RevisionFile& a, const RevisionFile& b) { return a.path < b.path; });
  return std::move(collecting.files);
}

namespace {

struct Extracting {
  git_repository* repository;
  std::string prefix, target;
  size_t files = 0;
  std::string failed;
};

int writeEntry(const char* root, const git_tree_entry* entry, void* payload) {
  namespace fs = std::filesystem;
  auto& x = *static_cast<Extracting*>(payload);
  std::string path = std::string(root) + git_tree_entry_name(entry);
  bool folder = git_tree_entry_type(entry) == GIT_OBJECT_TREE;
  if (folder && x.prefix.rfind(path + "/", 0) == 0) return 0;
  if (path.size() <= x.prefix.size() || path.compare(0, x.prefix.size(), x.prefix) != 0) return folder ? 1 : 0;
  std::string to = x.target + "/" + path.substr(x.prefix.size());
  std::error_code error;
  if (folder) {
    fs::create_directories(to, error);
    return error ? (x.failed = to, -1) : 0;
  }
  git_blob* got = nullptr;
  if (git_tree_entry_type(entry) != GIT_OBJECT_BLOB || git_blob_lookup(&got, x.repository, git_tree_entry_id(entry)) != 0) return 0;
  GitOwned<git_blob, git_blob_free> blob(got);
  std::string text(static_cast<const char*>(git_blob_rawcontent(got)), static_cast<size_t>(git_blob_rawsize(got)));
  git_filemode_t mode = git_tree_entry_filemode(entry);
  if (mode == GIT_FILEMODE_LINK) {
    fs::create_symlink(text, to, error);
  } else {
    std::ofstream out(to, std::ios::binary | std::ios::trunc);
    out << text;
    if (!out.flush()) return x.failed = to, -1;
    if (mode == GIT_FILEMODE_BLOB_EXECUTABLE) fs::permissions(to, fs::perms::owner_exec | fs::perms::group_exec | fs::perms::others_exec, fs::perm_options::add, error);
  }
  ++x.files;
  return 0;
}

}  // namespace

Result<size_t> extractRevision(const std::string& folder, const std::string& revision, const std::string& target) {
  startGit();
  auto place = gitAround(folder);
  if (!place) return place.error();
  auto tree = gitTreeOf(place->repository.get(), revision);
  if (!tree) return tree.error();
  std::error_code error;
  std::filesystem::create_directories(target, error);
  if (error) return Error{target, error.message()};
  Extracting extracting{place->repository.get(), place->prefix, target, 0, ""};
  if (git_tree_walk(tree->get(), GIT_TREEWALK_PRE, writeEntry, &extracting) < 0) return Error{revision, extracting.failed.empty() ? "cannot be read: " + gitError("the tree is damaged") : extracting.failed + " cannot be written"};
  return extracting.files;
}

}  // namespace elmcart
