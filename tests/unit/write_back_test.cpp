// Writing home survives being killed at any moment.
#include "rework/write_back.h"

#include <gtest/gtest.h>
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>
#include <random>
#include <thread>

#include "source/walk.h"

namespace elmcart {
namespace {
namespace fs = std::filesystem;

struct Tree {
  Tree() {
    std::string pattern = (fs::temp_directory_path() / "elmcart-test-XXXXXX").string();
    root = ::mkdtemp(pattern.data());
    for (int i = 0; i < 40; ++i) {
      std::string path = "f" + std::to_string(i) + ".cpp";
      files.push_back({path, std::string(2000 + i, 'o') + std::to_string(i), std::string(3000 + i, 'n') + std::to_string(i)});
      std::ofstream(root + "/" + path) << files.back().before;
    }
  }
  ~Tree() { fs::remove_all(root); }
  // 0: all old, 1: all new, 2: a mixture of whole files, 3: something torn.
  int state() const {
    int oldOnes = 0, newOnes = 0;
    for (const auto& file : files) {
      auto text = readWhole(root + "/" + file.path);
      if (!text || (*text != file.before && *text != file.after)) return 3;
      (*text == file.before ? oldOnes : newOnes)++;
    }
    return newOnes == 0 ? 0 : oldOnes == 0 ? 1 : 2;
  }
  std::string root;
  std::vector<WriteBackFile> files;
};

// Runs `work` in a child and kills it after a random little while.
template <typename Work>
void killDuring(Work work, std::mt19937& random, int mostMicroseconds) {
  pid_t child = ::fork();
  if (child == 0) {
    work();
    ::_exit(0);
  }
  std::this_thread::sleep_for(std::chrono::microseconds(random() % static_cast<unsigned>(mostMicroseconds)));
  ::kill(child, SIGKILL);
  ::waitpid(child, nullptr, 0);
}

TEST(WriteBack, SurvivesSigkillAtAnyMoment) {
  std::mt19937 random(7);
  int mixtures = 0;
  auto timed = [](auto work) {
    auto start = std::chrono::steady_clock::now();
    work();
    return static_cast<int>(std::chrono::duration_cast<std::chrono::microseconds>(std::chrono::steady_clock::now() - start).count()) + 1000;
  };
  Tree measure;
  int forward = timed([&] { (void)writeBack(measure.root, measure.files).ok(); });
  int backward = timed([&] { (void)undoJob(measure.root).ok(); });
  for (int i = 0; i < 60; ++i) {
    Tree tree;
    killDuring([&] { (void)writeBack(tree.root, tree.files).ok(); }, random, forward);
    int state = tree.state();
    ASSERT_NE(state, 3) << "a file is torn";
    mixtures += state == 2;
    if (hasInterruptedJob(tree.root)) {
      // Kill the way out too, now and then.
      if (i % 3 == 0) {
        killDuring([&] { (void)undoJob(tree.root).ok(); }, random, backward);
        ASSERT_NE(tree.state(), 3);
      }
      if (hasInterruptedJob(tree.root)) {
        auto done = i % 2 == 0 ? resumeJob(tree.root) : undoJob(tree.root);
        ASSERT_TRUE(done.ok()) << done.error().line();
      }
    }
    state = tree.state();
    EXPECT_TRUE(state == 0 || state == 1) << state;
    EXPECT_FALSE(hasInterruptedJob(tree.root));
    for (const auto& entry : fs::directory_iterator(tree.root)) EXPECT_EQ(entry.path().string().find(".elmcart-new"), std::string::npos);
  }
  EXPECT_GT(mixtures, 0) << "no kill fell into the writing itself";
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
