import { TideTable, Codes, Tickets, crane, cranes } from './books';

export class Arrivals {
  private table = TideTable.shared;

  arrive(ship: string): number {
    cranes.set(ship, crane);
    crane.lift();
    this.table.rise();  // finding: coupling.hidden-dependency
    return TideTable.shared.rise() + Tickets.draw() + Codes.instance.name(ship).length;
  }

  depart(): number {
    return this.table.rise();
  }
}
