using Quays.Ledgers;

namespace Quays.Tests
{
    // Leaves behind what it entered.
    class DuesTest
    {
        public void AddsUp()
        {
            HarbourDues.Dues().Enter(3);  // finding: coupling.test-leak
            HarbourDues.Dues().Enter(4);
        }
    }
}
