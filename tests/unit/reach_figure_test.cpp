// Figures stay small enough to be read: what is too much is folded, and nothing is lost on the way.
#include <gtest/gtest.h>

#include <numeric>

#include "report/reach.h"

namespace elmcart {
namespace {

// So many classes, four in a file, ten files in a folder; each reaches the entity, and calls the next.
Reach reachOfMany(size_t count) {
  Reach out;
  for (size_t i = 0; i < count; ++i) {
    ReachUnit unit;
    unit.name = "Quay" + std::to_string(i);
    unit.file = "src/pier" + std::to_string(i / 40) + "/quay" + std::to_string(i / 4) + ".cpp";
    unit.sites = i == 7 ? 90 : 1;
    out.units.push_back(unit);
    out.edges.push_back({i, SIZE_MAX, unit.sites, i == 3});
    if (i + 1 < count) out.edges.push_back({i, i + 1, 2, false});
  }
  out.direct = count;
  return out;
}

TEST(ReachFigure, DrawsFewAsTheyAre) {
  DrawnReach drawn = drawnReach(reachOfMany(5), false);
  EXPECT_EQ(drawn.nodes.size(), 5u);
  EXPECT_EQ(drawn.edges.size(), 9u);
  EXPECT_EQ(drawn.nodes[2].label, "Quay2");
}

TEST(ReachFigure, FoldsManyByFileThenByFolder) {
  DrawnReach drawn = drawnReach(reachOfMany(900), false);
  EXPECT_LE(drawn.nodes.size(), kMostDrawnNodes);
  EXPECT_LE(drawn.edges.size(), kMostDrawnEdges);
  size_t units = 0, sites = 0;
  bool alone = false, folder = false;
  for (const DrawnNode& node : drawn.nodes) {
    units += node.units;
    alone |= node.label == "Quay7";
    folder |= node.label == "40 more in src/pier20";
  }
  for (const ReachEdge& edge : drawn.edges)
    if (edge.to == SIZE_MAX) sites += edge.count;
  EXPECT_EQ(units, 900u);
  EXPECT_EQ(sites, 900u + 89u) << "the sites of what is folded are added up";
  EXPECT_TRUE(alone) << "the class with the most sites stays by itself";
  EXPECT_TRUE(folder);
}

TEST(ReachFigure, FoldsByFileWhereThatIsEnough) {
  DrawnReach drawn = drawnReach(reachOfMany(100), false);
  EXPECT_LE(drawn.nodes.size(), kMostDrawnNodes);
  bool byFile = false;
  for (const DrawnNode& node : drawn.nodes) byFile |= node.label == "4 more in src/pier2/quay20.cpp";
  EXPECT_TRUE(byFile);
}

TEST(ReachFigure, LeavesTestsOutUnlessAsked) {
  Reach reach = reachOfMany(4);
  reach.units[1].tests = true;
  EXPECT_EQ(drawnReach(reach, false).nodes.size(), 3u);
  EXPECT_EQ(drawnReach(reach, true).nodes.size(), 4u);
}

TEST(ReachFigure, TellsHowManyArrowsAreLeftOut) {
  Reach reach = reachOfMany(40);
  for (size_t i = 0; i < 40; ++i)
    for (size_t j = i + 2; j < 40; ++j) reach.edges.push_back({i, j, 1, false});
  size_t all = reach.edges.size();
  DrawnReach drawn = drawnReach(reach, false);
  EXPECT_EQ(drawn.edges.size(), kMostDrawnEdges);
  EXPECT_EQ(drawn.edgesLeftOut, all - kMostDrawnEdges);
  EXPECT_EQ(drawn.edges.front().to, SIZE_MAX) << "what reaches the entity itself stays";
}

}  // namespace
}  // namespace elmcart
