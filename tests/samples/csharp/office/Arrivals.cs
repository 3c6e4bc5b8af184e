using Harbour.Office;

namespace Harbour.Desk;

class Arrivals
{
    private readonly BerthBook book = BerthBook.Instance;

    int Arrive(string ship)
    {
        BerthBook.Instance.Assign(ship, 4);  // near: coupling.hidden-dependency
        PilotRoster.Get().Add(ship);
        Clock.Shared.Ticks = 4;
        if (book?.Count() > Codes.Limit) return Tickets.Draw();
        return TideTable.Instance.Rise();  // near: coupling.hidden-dependency
    }
}
