#include <gtest/gtest.h>

#include <string>
#include <vector>

#include "base/names.h"
#include "program/program.h"

using namespace elmcart;

TEST(Names, AreKeptOnceAndStayWhereTheTableGoes) {
  NameTable names;
  std::vector<std::string> texts = {"", "quay", std::string(200000, 'x'), "berth"};
  for (int i = 0; i < 20000; ++i) texts.push_back("name" + std::to_string(i));
  std::vector<NameId> ids;
  for (const std::string& text : texts) ids.push_back(names.intern(text));
  std::string_view quay = names.text(ids[1]);
  NameTable moved(std::move(names));
  for (size_t i = 0; i < texts.size(); ++i) {
    EXPECT_EQ(moved.text(ids[i]), texts[i]);
    EXPECT_EQ(moved.intern(texts[i]), ids[i]);
    EXPECT_EQ(moved.find(texts[i]), ids[i]);
  }
  EXPECT_EQ(quay.data(), moved.text(ids[1]).data());
  EXPECT_EQ(moved.size(), texts.size());
  EXPECT_EQ(moved.find("tide"), 0u);
}

TEST(Names, AddedOnesAreNotFound) {
  NameTable names;
  NameId own = names.add("Quay::moor");
  EXPECT_EQ(names.text(own), "Quay::moor");
  EXPECT_EQ(names.find("Quay::moor"), 0u);
  EXPECT_NE(names.intern("Quay::moor"), own);
}

TEST(Names, LastingOnesAreNotCopied) {
  std::string text = "a text that outlives the table";
  NameTable names;
  EXPECT_EQ(names.text(names.internLasting(text)).data(), text.data());
}

TEST(Positions, AreInOrderAndLeaveOutWhatBelongsToNone) {
  Positions positions;
  std::vector<uint32_t> list = {2, kNone, 0, 2, 2, kNone};
  positions.fill(4, list, [](uint32_t item) { return item; });
  auto of = [&](uint32_t number) { return std::vector<uint32_t>(positions[number].begin(), positions[number].end()); };
  EXPECT_EQ(of(0), (std::vector<uint32_t>{2}));
  EXPECT_TRUE(positions[1].empty());
  EXPECT_EQ(of(2), (std::vector<uint32_t>{0, 3, 4}));
  EXPECT_TRUE(positions[3].empty());
  positions.fill(1, std::vector<uint32_t>{}, [](uint32_t item) { return item; });
  EXPECT_TRUE(positions[0].empty());
}
