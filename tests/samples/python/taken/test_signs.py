import unittest

from signs import CALLERS, OFFICE, SIGNS


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

    def test_calls(self):
        try:
            CALLERS[:] = [self.fail]  # near: coupling.test-leak
        finally:
            CALLERS[:] = []
        self.assertEqual(CALLERS, [])

    def test_is_called(self):
        CALLERS[:] = [print]
        CALLERS[:] = []

    def setUp(self):
        OFFICE.window = object()  # near: coupling.test-leak

    def tearDown(self):
        close_office()
