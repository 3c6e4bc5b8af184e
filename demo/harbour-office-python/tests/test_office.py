import unittest

from office import tickets
from office.berths import berth_book
from office.duty import NightWatch
from office.mast import FogHorn, mast
from office.quay import CraneGang, Quay, TugDispatch
from office.traffic import Departures, HarbourMaster


class OfficeTest(unittest.TestCase):
    def setUp(self):
        for berth in range(100):
            berth_book().release(berth)

    def test_a_ship_gets_the_first_free_berth(self):
        quay = Quay("north", 1, 2)
        self.assertEqual([quay.moor("Tern"), quay.moor("Skua"), quay.moor("Gull")], [1, 2, -1])

    def test_a_crane_works_a_ship_and_no_empty_berth(self):
        quay = Quay("north", 1)
        quay.moor("Tern")
        self.assertEqual(CraneGang(quay).work(1, 30), 240)
        self.assertEqual(CraneGang(quay).work(2, 30), 0)

    def test_a_tug_comes_for_a_ship_only(self):
        Quay("north", 1).moor("Tern")
        tugs = TugDispatch()
        self.assertEqual(tugs.order(1), "tug 1 for Tern")
        self.assertEqual(tugs.order(2), "no tug")

    def test_a_ship_is_cleared_once(self):
        Quay("north", 1).moor("Tern")
        departures = Departures()
        self.assertTrue(departures.clear(1))
        self.assertFalse(departures.clear(1))

    def test_the_master_counts(self):
        master = HarbourMaster("master")
        master.receive("Tern")
        self.assertEqual(master.summary(), "master: 1 berthed, 0 cleared")

    def test_the_night_watch_takes_a_ticket(self):
        before = tickets.next_ticket
        watch = NightWatch()
        watch.start()
        watch.stop()
        self.assertEqual(tickets.next_ticket, before + 1)

    def test_a_horn_that_has_gone_is_silent(self):
        horn = FogHorn()
        mast.hoist("fog")
        horn.close()
        mast.hoist("fog")
        self.assertEqual(horn.blasts, 1)


if __name__ == "__main__":
    unittest.main()
