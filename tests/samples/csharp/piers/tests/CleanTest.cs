namespace Piers
{
    // Near miss: puts back what it found.
    static class CleanTest
    {
        public static void TestOnce()
        {
            var before = PilotFees.fees.total;
            PilotFees.fees.total = 30;  // near: coupling.test-leak
            PilotFees.fees.total = before;
        }
    }
}
