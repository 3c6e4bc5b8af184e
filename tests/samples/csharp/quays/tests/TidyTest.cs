using Quays.Ledgers;

namespace Quays.Tests
{
    // Near miss: puts it back.
    class TidyTest
    {
        public void AddsUp()
        {
            HarbourDues.Dues().Enter(3);  // near: coupling.test-leak
            HarbourDues.Dues().Clear();
        }
    }
}
