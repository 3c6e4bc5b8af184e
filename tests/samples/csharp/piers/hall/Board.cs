namespace Piers
{
    // A layer that may reach none, through the module.
    class Board
    {
        private int shown = 0;

        public void Show()
        {
            this.shown = PilotFees.fees.total;  // finding: coupling.layer-breach
        }
    }
}
