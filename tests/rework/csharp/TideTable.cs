namespace Harbour.Tides
{
    public sealed class TideTable
    {
        private static readonly TideTable instance = new TideTable();
        private int asked;

        private TideTable()
        {
        }

        public static TideTable Instance
        {
            get { return instance; }
        }

        public int Asked
        {
            get { return asked; }
        }

        public int Height(int hour)
        {
            asked++;
            return 3 + hour % 6;
        }
    }
}
