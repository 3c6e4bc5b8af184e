using System;

namespace Piers
{
    // Leaves behind what it set.
    static class FeesTest
    {
        public static void TestTwice()
        {
            PilotFees.fees.total = 30;  // finding: coupling.test-leak
            if (PilotFees.fees.total != 30)
            {
                throw new InvalidOperationException("total");
            }
        }
    }
}
