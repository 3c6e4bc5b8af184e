// Writing home survives being killed at any moment.
#include "rework/write_back.h"

#include <fcntl.h>
#include <gtest/gtest.h>
#include <signal.h>
#include <sys/syscall.h>
#include <sys/wait.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>

#include "source/walk.h"
#include "support/folder.h"

namespace {

// How many changes to the disk this process may still make before it is killed;
// below nought: as many as it likes.
int changesLeft = -1;

void spend() {
  if (changesLeft >= 0 && changesLeft-- == 0) ::raise(SIGKILL);
}

}  // namespace

// The program's own calls land here instead of in the C library.
extern "C" {
int rename(const char* from, const char* to) {
  spend();
  return static_cast<int>(::syscall(SYS_renameat, AT_FDCWD, from, AT_FDCWD, to));
}
int fsync(int fd) {
  spend();
  return static_cast<int>(::syscall(SYS_fsync, fd));
}
int unlink(const char* path) {
  spend();
  return static_cast<int>(::syscall(SYS_unlinkat, AT_FDCWD, path, 0));
}
int unlinkat(int folder, const char* path, int flags) {
  spend();
  return static_cast<int>(::syscall(SYS_unlinkat, folder, path, flags));
}
int mkdir(const char* path, mode_t mode) {
  spend();
  return static_cast<int>(::syscall(SYS_mkdirat, AT_FDCWD, path, mode));
}
}

namespace elmcart {
namespace {
struct Tree {
  Tree() {
    for (int i = 0; i < 12; ++i) {
      std::string path = "f" + std::to_string(i) + ".cpp";
      files.push_back({path, std::string(2000 + i, 'o') + std::to_string(i), std::string(3000 + i, 'n') + std::to_string(i)});
      // Some are made by the job.
      if (i % 4 == 3 && i > 3) files.back() = {path, "", files.back().after, true};
      else folder.write(path, files.back().before);
    }
  }
  // 0: all old, 1: all new, 2: a mixture of whole files, 3: something torn.
  int state() const {
    int oldOnes = 0, newOnes = 0;
    for (const auto& file : files) {
      auto text = readWhole(root + "/" + file.path);
      if (!text && file.isNew) {
        ++oldOnes;
        continue;
      }
      if (!text || (*text != file.before && *text != file.after)) return 3;
      (*text == file.before ? oldOnes : newOnes)++;
    }
    return newOnes == 0 ? 0 : oldOnes == 0 ? 1 : 2;
  }
  Folder folder;
  const std::string& root = folder.path();
  std::vector<WriteBackFile> files;
};

// Runs `work` in a child that is killed before its `moment`th change to the
// disk. False: the work came to its end before that.
template <typename Work>
bool killedBefore(int moment, Work work) {
  pid_t child = ::fork();
  if (child == 0) {
    changesLeft = moment;
    work();
    ::_exit(0);
  }
  int status = 0;
  ::waitpid(child, &status, 0);
  return WIFSIGNALED(status) && WTERMSIG(status) == SIGKILL;
}

TEST(WriteBack, SurvivesSigkillBeforeEachChangeItMakes) {
  int moments = 0, mixtures = 0;
  for (bool more = true; more; ++moments) {
    Tree tree;
    more = killedBefore(moments, [&] { (void)writeBack(tree.root, tree.files).ok(); });
    int state = tree.state();
    ASSERT_NE(state, 3) << "a file is torn, moment " << moments;
    mixtures += state == 2;
    if (hasInterruptedJob(tree.root)) {
      // Kill the way out too, at a moment of its own.
      (void)killedBefore(moments % 11, [&] { (void)(moments % 4 < 2 ? undoJob(tree.root) : resumeJob(tree.root)).ok(); });
      ASSERT_NE(tree.state(), 3) << "moment " << moments;
      if (hasInterruptedJob(tree.root)) {
        auto done = moments % 2 == 0 ? resumeJob(tree.root) : undoJob(tree.root);
        ASSERT_TRUE(done.ok()) << done.error().line();
      }
    }
    state = tree.state();
    EXPECT_TRUE(state == 0 || state == 1) << state << ", moment " << moments;
    EXPECT_FALSE(hasInterruptedJob(tree.root)) << "moment " << moments;
    for (const auto& entry : fs::directory_iterator(tree.root)) EXPECT_EQ(entry.path().string().find(".elmcart-new"), std::string::npos);
  }
  EXPECT_GT(moments, 40);
  EXPECT_GE(mixtures, 8) << "too few kills fell between the first file and the last";
}

TEST(WriteBack, TakingBackSurvivesSigkillToo) {
  int moments = 0, mixtures = 0;
  for (bool more = true; more; ++moments) {
    Tree tree;
    ASSERT_TRUE(writeBack(tree.root, tree.files).ok());
    more = killedBefore(moments, [&] { (void)undoJob(tree.root).ok(); });
    ASSERT_NE(tree.state(), 3) << "moment " << moments;
    mixtures += tree.state() == 2;
    if (tree.state() != 0) {
      auto done = hasInterruptedJob(tree.root) ? resumeJob(tree.root) : undoJob(tree.root);
      ASSERT_TRUE(done.ok()) << done.error().line();
    }
    if (hasInterruptedJob(tree.root)) {
      ASSERT_TRUE(resumeJob(tree.root).ok());
    }
    EXPECT_EQ(tree.state(), 0) << "moment " << moments;
    EXPECT_FALSE(hasInterruptedJob(tree.root)) << "moment " << moments;
  }
  EXPECT_GE(mixtures, 8);
}

TEST(WriteBack, LeavesAloneWhatSomebodyElseChanged) {
  Tree tree;
  std::ofstream(tree.root + "/f3.cpp") << "mine";
  auto refused = writeBack(tree.root, tree.files);
  ASSERT_FALSE(refused.ok());
  EXPECT_EQ(refused.error().subject, "f3.cpp");
  EXPECT_EQ(*readWhole(tree.root + "/f0.cpp"), tree.files[0].before);
  std::ofstream(tree.root + "/f3.cpp") << tree.files[3].before;
  ASSERT_TRUE(writeBack(tree.root, tree.files).ok());
  std::ofstream(tree.root + "/f5.cpp") << "later work";
  auto undone = undoJob(tree.root);
  ASSERT_FALSE(undone.ok());
  EXPECT_EQ(*readWhole(tree.root + "/f5.cpp"), "later work");
  EXPECT_EQ(*readWhole(tree.root + "/f0.cpp"), tree.files[0].after);
}

TEST(WriteBack, KeepsTheModeOfAFile) {
  Tree tree;
  fs::permissions(tree.root + "/f1.cpp", fs::perms::owner_all);
  ASSERT_TRUE(writeBack(tree.root, tree.files).ok());
  EXPECT_EQ(fs::status(tree.root + "/f1.cpp").permissions(), fs::perms::owner_all);
}

}  // namespace
}  // namespace elmcart
