// Every move on every piece of shared state in all samples, planned only: no two
// edits meet, no plan goes on for ever, and what comes out can be read as well
// as what went in.
#include <gtest/gtest.h>

#include <algorithm>

#include "base/text.h"
#include "rework/moves.h"
#include "rework/rework.h"
#include "support/folder.h"

namespace elmcart {
namespace {

std::vector<std::string> programs() {
  std::vector<std::string> out;
  for (const auto& language : fs::directory_iterator(ELMCART_SAMPLES)) {
    if (!language.is_directory()) continue;
    for (const auto& entry : fs::directory_iterator(language.path()))
      if (entry.is_directory()) out.push_back(language.path().filename().string() + "/" + entry.path().filename().string());
  }
  std::sort(out.begin(), out.end());
  return out;
}

class MovesEverywhere : public testing::TestWithParam<std::string> {};

TEST_P(MovesEverywhere, LeaveTextThatCanBeRead) {
  Folder folder;
  fs::copy(std::string(ELMCART_SAMPLES) + "/" + GetParam(), folder / "tree", fs::copy_options::recursive);
  auto config = findConfig(folder / "tree");
  auto first = analyse(folder / "tree", *config, 1, false);
  ASSERT_TRUE(first.ok());
  std::vector<std::pair<size_t, std::string>> shared, classes, functions;
  for (size_t i = 0; i < (*first)->survey.entities.size(); ++i)
    if (!(*first)->survey.entities[i].harmless) shared.emplace_back(i, (*first)->survey.entities[i].id);
  for (TypeIndex t = 0; t < (*first)->program.types.size(); ++t)
    if ((*first)->program.types[t].definition.known()) classes.emplace_back(t, (*first)->program.text((*first)->program.types[t].qualified));
  for (FunctionIndex f = 0; f < (*first)->program.functions.size(); ++f)
    if ((*first)->program.functions[f].definition.known()) functions.emplace_back(f, functionText((*first)->program, f));
  // Of the many classes and functions the first that a move can be made for are enough.
  constexpr size_t kMost = 5;
  for (const Move& move : moves()) {
    size_t made = 0;
    for (auto& [target, id] : move.of == MoveTarget::Class ? classes : move.of == MoveTarget::Function ? functions : shared) {
      if (targetOf(**first, move, id) != target || !refusalOf(move, **first, target).empty()) continue;
      if (move.of != MoveTarget::State && ++made > kMost) break;
      ReworkOptions options;
      options.move = move.id;
      options.of = move.of;
      options.confirm = false;
      options.retire = true;
      options.jobs = 1;
      options.mostSteps = 40;
      auto done = rework(folder / "tree", *config, id, options);
      std::string about = std::string(move.id) + " of " + id;
      ASSERT_TRUE(done.ok()) << about << ": " << done.error().line();
      EXPECT_LT(done->steps.size(), 40u) << about;
      for (const StepRecord& step : done->steps) EXPECT_TRUE(step.kept) << about << ", " << step.step.title << ": " << step.outcome;
      if (done->files.empty()) continue;
      Folder after;
      fs::copy(folder / "tree", after / "tree", fs::copy_options::recursive);
      for (const WriteBackFile& file : done->files) std::ofstream(after / ("tree/" + file.path), std::ios::binary) << file.after;
      auto second = analyse(after / "tree", *config, 1, false);
      ASSERT_TRUE(second.ok());
      EXPECT_EQ((*second)->unreadBytes, 0u) << about << "\n" << done->files.front().after;
    }
  }
}

INSTANTIATE_TEST_SUITE_P(All, MovesEverywhere, testing::ValuesIn(programs()), [](const auto& info) {
  std::string name = info.param;
  for (char& c : name) if (!isWordByte(c)) c = '_';
  return name;
});

}  // namespace
}  // namespace elmcart
