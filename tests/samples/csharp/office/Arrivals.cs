using Harbour.Office;

namespace Harbour.Desk
{
    class Arrivals
    {
        private readonly BerthBook book = BerthBook.Instance;

        int Arrive(string ship)
        {
            BerthBook.Instance.Assign(ship, 4);  // finding: tie.hidden-dependency
            PilotRoster.Get().Add(ship);
            Clock.Shared.Ticks = 4;  // finding: tie.hidden-dependency
            if (book?.Count() > Codes.Limit) return Tickets.Draw();  // finding: tie.hidden-dependency
            return TideTable.Instance.Rise();  // finding: tie.hidden-dependency
        }
    }
}
