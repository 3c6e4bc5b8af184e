using Quays.Ledgers;

namespace Quays.Desks
{
    // Near miss: a layer that may.
    class Desk
    {
        public void Pay(int coins)
        {
            HarbourDues.Dues().Enter(coins);  // near: coupling.layer-breach  // finding: coupling.hidden-dependency
        }
    }
}
