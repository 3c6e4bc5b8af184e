using Quays.Ledgers;

namespace Quays.Desks
{
    // Near miss: a layer that may.
    class Desk
    {
        public void Pay(int coins)
        {
            HarbourDues.Dues().Enter(coins);  // near: tie.layer-breach  // finding: tie.hidden-dependency
        }
    }
}
