// The dues of the harbour, in a layer of their own.
namespace Quays.Ledgers
{
    sealed class HarbourDues  // entity: singleton HarbourDues eager language
    {
        private static readonly HarbourDues dues = new HarbourDues();
        private int total;

        private HarbourDues()
        {
        }

        public static HarbourDues Dues()
        {
            return dues;
        }

        public void Enter(int coins)
        {
            total = total + coins;
        }

        public void Clear()
        {
            total = 0;
        }

        public int Total()
        {
            return total;
        }
    }
}
