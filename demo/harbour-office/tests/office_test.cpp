#include <gtest/gtest.h>

#include "berth_book.h"
#include "duty.h"
#include "harbour_clock.h"
#include "night_watch.h"
#include "pilot_roster.h"
#include "port_services.h"
#include "quay.h"
#include "scales.h"
#include "signal_mast.h"
#include "tide_table.h"
#include "traffic.h"

namespace office {
namespace {

class QuayTest : public testing::Test {
 protected:
  void SetUp() override { BerthBook::get().clear(); }

  Quay quay_{"east", 20, 3};
};

TEST_F(QuayTest, GivesTheFirstFreeBerth) { EXPECT_EQ(quay_.moor("Gannet"), 20); }

TEST_F(QuayTest, GivesTheNextBerthToTheNextShip) {
  quay_.moor("Gannet");
  EXPECT_EQ(quay_.moor("Petrel"), 21);
}

TEST_F(QuayTest, RefusesWhenFull) {
  quay_.moor("Gannet");
  quay_.moor("Petrel");
  quay_.moor("Fulmar");
  EXPECT_EQ(quay_.moor("Skua"), -1);
}

TEST_F(QuayTest, WritesTheShipIntoTheBook) {
  quay_.moor("Gannet");
  EXPECT_EQ(BerthBook::get().shipAt(20), "Gannet");
}

TEST_F(QuayTest, FreesABerthOnLeaving) {
  quay_.moor("Gannet");
  EXPECT_TRUE(quay_.leave(20));
  EXPECT_EQ(quay_.freeBerths(), 3);
}

TEST_F(QuayTest, CannotLeaveAnEmptyBerth) { EXPECT_FALSE(quay_.leave(22)); }

TEST_F(QuayTest, CountsFreeBerths) {
  quay_.moor("Gannet");
  EXPECT_EQ(quay_.freeBerths(), 2);
}

TEST_F(QuayTest, KnowsItsName) { EXPECT_EQ(quay_.name(), "east"); }

TEST_F(QuayTest, CranesWorkAMooredShip) {
  quay_.moor("Gannet");
  CraneGang gang(quay_);
  EXPECT_EQ(gang.work(20, 10), 80);
}

TEST_F(QuayTest, CranesRestAtAnEmptyBerth) {
  CraneGang gang(quay_);
  EXPECT_EQ(gang.work(21, 10), 0);
}

TEST(BerthBook, TakesOneShipABerth) {
  BerthBook& book = BerthBook::get();
  book.clear();
  EXPECT_TRUE(book.assign(5, "Gannet"));
  EXPECT_FALSE(book.assign(5, "Petrel"));
}

TEST(BerthBook, CountsOccupiedBerths) {
  BerthBook::get().clear();
  BerthBook::get().assign(5, "Gannet");
  BerthBook::get().assign(6, "Petrel");
  EXPECT_EQ(BerthBook::get().occupied(), 2);
}

TEST(Arrivals, FillNorthThenSouth) {
  BerthBook::get().clear();
  Arrivals arrivals;
  EXPECT_EQ(arrivals.admit("Gannet"), 1);
  EXPECT_EQ(arrivals.admit("Petrel"), 2);
  EXPECT_EQ(arrivals.admit("Fulmar"), 10);
}

TEST(Arrivals, WaitWhenTheHarbourIsFull) {
  BerthBook::get().clear();
  Arrivals arrivals;
  for (int i = 0; i < 7; ++i) arrivals.admit("ship " + std::to_string(i));
  EXPECT_EQ(arrivals.waiting(), 1);
}

TEST(Departures, ClearAShip) {
  BerthBook::get().clear();
  BerthBook::get().assign(3, "Gannet");
  Departures departures;
  EXPECT_TRUE(departures.clear(3));
  EXPECT_EQ(departures.cleared(), 1);
}

TEST(Departures, ClearNobodyAtAnEmptyBerth) {
  BerthBook::get().clear();
  Departures departures;
  EXPECT_FALSE(departures.clear(3));
}

TEST(ServiceDesk, OrdersWaterForTheShipAtTheBerth) {
  BerthBook::get().clear();
  BerthBook::get().assign(1, "Gannet");
  ServiceDesk desk;
  EXPECT_EQ(desk.order(0, 1), "water for Gannet: 40 t");
}

TEST(ServiceDesk, SendsTugsByNumber) {
  BerthBook::get().clear();
  BerthBook::get().assign(1, "Gannet");
  ServiceDesk desk;
  EXPECT_EQ(desk.order(1, 1), "tug 1 for Gannet");
  EXPECT_EQ(desk.order(1, 1), "tug 2 for Gannet");
}

TEST(ServiceDesk, SendsNoTugToAnEmptyBerth) {
  BerthBook::get().clear();
  auto dispatch = std::make_unique<TugDispatch>();
  EXPECT_EQ(dispatch->order(4), "no tug");
}

TEST(ServiceDesk, KnowsWhatItDoesNotOffer) {
  ServiceDesk desk;
  EXPECT_EQ(desk.order(desk.count(), 1), "unknown service");
}

TEST(HarbourMaster, SumsUpTheDay) {
  BerthBook::get().clear();
  HarbourMaster master("master");
  master.receive("Gannet");
  master.receive("Petrel");
  master.dismiss(1);
  EXPECT_EQ(master.summary(), "master: 1 berthed, 0 waiting, 1 cleared");
}

TEST(PilotRoster, SignsOnAndOff) {
  PilotRoster::roster()->signOn("pilot one");
  EXPECT_TRUE(PilotRoster::roster()->signOff("pilot one"));
  EXPECT_FALSE(PilotRoster::roster()->signOff("pilot one"));
}

TEST(PilotRoster, KeepsAReserve) { EXPECT_EQ(reserveStrength(), 1u); }

TEST(NightWatch, WalksOneRound) {
  NightWatch watch;
  watch.start();
  watch.stop();
  EXPECT_EQ(watch.rounds(), 1);
}

TEST(TideTable, KnowsTheFirstDay) {
  ASSERT_NE(tideTable.on(1), nullptr);
  EXPECT_EQ(tideTable.on(1)->high, 412);
  EXPECT_EQ(tideTable.days(), 4);
}

TEST(HarbourClock, CountsDays) {
  int before = harbourClock.day();
  harbourClock.nextDay();
  EXPECT_EQ(harbourClock.day(), before + 1);
}

TEST(HarbourClock, HasBegun) { EXPECT_GE(harbourClock.day(), 1); }

TEST(SignalMast, TellsTheLantern) {
  static Lantern lantern;
  SignalMast::mast().hoist("night");
  EXPECT_TRUE(lantern.lit());
}

TEST(SignalMast, ForgetsTheHorn) {
  int before = SignalMast::mast().hoist("fog");
  {
    FogHorn horn;
    EXPECT_EQ(SignalMast::mast().hoist("fog"), before + 1);
    EXPECT_EQ(horn.blasts(), 1);
  }
  EXPECT_EQ(SignalMast::mast().hoist("fog"), before);
}

TEST(Scales, TakeTheTareOff) {
  int kilos[] = {120, 340};
  EXPECT_EQ(weighAll(kilos, 2), 420);
}

TEST(Scales, MakeAFreshSlipEachTime) {
  auto first = WeighSlip::instance(1);
  auto second = WeighSlip::instance(1);
  EXPECT_NE(first.get(), second.get());
}

TEST(Duty, HasAnOfficerAThread) {
  Officer officer("second officer");
  setOfficerOnWatch(&officer);
  EXPECT_EQ(officerOnWatch()->name(), "second officer");
  setOfficerOnWatch(nullptr);
}

}  // namespace
}  // namespace office
