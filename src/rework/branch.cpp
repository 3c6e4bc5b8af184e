#include "rework/branch.h"

#include "base/text.h"
#include "source/git.h"

namespace elmcart {
namespace {

using Author = GitOwned<git_signature, git_signature_free>;

struct Ready {
  GitPlace place;
  Author who;
  git_oid head;
};

Result<Ready> ready(const std::string& root, const std::string& branch) {
  auto place = gitAround(root);
  if (!place) return place.error();
  git_repository* repository = place->repository.get();
  Ready out{std::move(*place), nullptr, {}};
  if (git_reference_name_to_id(&out.head, repository, "HEAD") != 0) return Error{root, "its repository has no commit yet"};
  git_reference* there = nullptr;
  if (git_branch_lookup(&there, repository, branch.c_str(), GIT_BRANCH_LOCAL) == 0) {
    git_reference_free(there);
    return Error{branch, "is a branch already"};
  }
  int valid = 0;
  git_reference_name_is_valid(&valid, ("refs/heads/" + branch).c_str());
  if (!valid) return Error{branch, "is no name for a branch"};
  git_signature* who = nullptr;
  if (git_signature_default(&who, repository) != 0) return Error{root, "git does not know who commits: set user.name and user.email"};
  out.who.reset(who);
  // Files that git does not track are nobody's change.
  git_status_options options;
  git_status_options_init(&options, GIT_STATUS_OPTIONS_VERSION);
  options.show = GIT_STATUS_SHOW_INDEX_AND_WORKDIR;
  options.flags = GIT_STATUS_OPT_EXCLUDE_SUBMODULES;
  git_status_list* listed = nullptr;
  if (git_status_list_new(&listed, repository, &options) != 0) return Error{root, "its state in git cannot be read: " + gitError("")};
  GitOwned<git_status_list, git_status_list_free> list(listed);
  if (size_t changed = git_status_list_entrycount(listed); changed > 0) {
    const git_status_entry* first = git_status_byindex(listed, 0);
    const git_diff_delta* delta = first->index_to_workdir ? first->index_to_workdir : first->head_to_index;
    return Error{root, counted(changed, "file is", "files are") + " changed since the last commit (" + (delta && delta->new_file.path ? delta->new_file.path : "?") + "): commit or put them away first"};
  }
  return out;
}

}  // namespace

Result<bool> mayBranch(const std::string& root, const std::string& branch) {
  startGit();
  auto r = ready(root, branch);
  if (!r) return r.error();
  return true;
}

Result<size_t> commitSteps(const std::string& root, const std::string& branch, const ReworkResult& result) {
  startGit();
  auto r = ready(root, branch);
  if (!r) return r.error();
  git_repository* repository = r->place.repository.get();
  auto failed = [&](const std::string& what) { return Error{branch, what + ": " + gitError("git gives no reason")}; };
  git_commit* found = nullptr;
  if (git_commit_lookup(&found, repository, &r->head) != 0) return failed("the commit to begin from cannot be read");
  GitOwned<git_commit, git_commit_free> parent(found);
  // An index of our own: the one of the work tree stays as it is.
  git_index* made = nullptr;
  if (git_index_new(&made) != 0) return failed("no index could be made");
  GitOwned<git_index, git_index_free> index(made);
  git_tree* at = nullptr;
  if (git_commit_tree(&at, parent.get()) != 0) return failed("the last commit's tree cannot be read");
  GitOwned<git_tree, git_tree_free> base(at);
  if (git_index_read_tree(index.get(), base.get()) != 0) return failed("the last commit's tree cannot be read");
  size_t commits = 0;
  for (const StepRecord& step : result.steps) {
    if (!step.kept) continue;
    for (auto& [path, text] : step.texts) {
      std::string whole = r->place.prefix + path;
      git_oid blob;
      if (git_blob_create_from_buffer(&blob, repository, text.data(), text.size()) != 0) return failed(path + " cannot be stored");
      git_index_entry entry{};
      if (const git_index_entry* old = git_index_get_bypath(index.get(), whole.c_str(), 0)) entry.mode = old->mode;
      else entry.mode = GIT_FILEMODE_BLOB;
      entry.path = whole.c_str();
      entry.id = blob;
      entry.file_size = static_cast<uint32_t>(text.size());
      if (git_index_add(index.get(), &entry) != 0) return failed(path + " cannot be stored");
    }
    git_oid treeId, commitId;
    git_tree* written = nullptr;
    if (git_index_write_tree_to(&treeId, index.get(), repository) != 0 || git_tree_lookup(&written, repository, &treeId) != 0) return failed("a tree cannot be stored");
    GitOwned<git_tree, git_tree_free> tree(written);
    std::string message = step.step.title + "\n\n" + step.outcome + ".\n";
    message[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(message[0])));
    const git_commit* parents[] = {parent.get()};
    if (git_commit_create(&commitId, repository, nullptr, r->who.get(), r->who.get(), "UTF-8", message.c_str(), tree.get(), 1, parents) != 0) return failed("a commit cannot be stored");
    git_commit* next = nullptr;
    if (git_commit_lookup(&next, repository, &commitId) != 0) return failed("a commit cannot be read back");
    parent.reset(next);
    ++commits;
  }
  if (commits == 0) return size_t{0};
  // The branch appears when all of its commits are there.
  git_reference* reference = nullptr;
  if (git_branch_create(&reference, repository, branch.c_str(), parent.get(), 0) != 0) return failed("the branch cannot be made");
  git_reference_free(reference);
  return commits;
}

}  // namespace elmcart
