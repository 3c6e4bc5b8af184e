using Quays.Ledgers;

namespace Quays.Halls
{
    // A layer that may reach none.
    class Hall
    {
        public int Show()
        {
            return HarbourDues.Dues().Total();  // finding: coupling.layer-breach
        }
    }
}
