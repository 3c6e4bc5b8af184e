namespace Piers;

// The fees of the pilots, in a layer of their own.
class PilotFees  // entity: singleton PilotFees eager language  // finding: single.open-constructor
{
    public int total = 0;

    public void Enter(int coins)
    {
        this.total = coins;
    }

    public void Clear()
    {
        this.total = 0;
    }

    public static readonly PilotFees fees = new PilotFees();
}
