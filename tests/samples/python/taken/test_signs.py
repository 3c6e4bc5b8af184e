import unittest

from signs import OFFICE, SIGNS


def close_office():
    OFFICE.window = OFFICE.book = None


class SignsTest(unittest.TestCase):
    def test_known(self):
        sign = object()
        SIGNS.enable(sign)  # near: coupling.test-leak
        self.assertEqual(len(SIGNS.known), 1)
        SIGNS.disable(sign)

    def test_unknown(self):
        self.assertEqual(len(SIGNS.known), 0)

    def setUp(self):
        OFFICE.window = object()  # near: coupling.test-leak

    def tearDown(self):
        close_office()
