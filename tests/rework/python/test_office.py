import unittest

from harbour.office import Ferry, Office, Pilot


class OfficeTest(unittest.TestCase):
    def test_a_deep_ship_waits(self):
        self.assertEqual(Pilot("Wren", 8).advice(4), "Wren waits at 4")

    def test_the_ferry_leaves_at_three(self):
        self.assertEqual(Ferry().departure(), 3)

    def test_the_office_sends_all(self):
        self.assertIn("Tern sails at 4", Office("Tern").day())


if __name__ == "__main__":
    unittest.main()
