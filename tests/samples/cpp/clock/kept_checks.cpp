// The includes tell that it holds tests. Each puts what it needs there, and its threads look at nothing else.
#include <gtest/gtest.h>

#include <thread>

struct LampQueue {
  int lit = 0;
};

static LampQueue* g_lamps;  // entity: global-variable g_lamps elsewhere none

static void light() { ++g_lamps->lit; }

TEST(Lamps, AreLit) {
  LampQueue lamps;
  g_lamps = &lamps;  // near: lifetime.local-address-stored
  std::thread lighter(light);
  lighter.join();
  EXPECT_EQ(lamps.lit, 1);
}
