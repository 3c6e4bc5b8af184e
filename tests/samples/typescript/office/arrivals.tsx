import { TideTable, Codes, Tickets, crane, cranes } from './books';

export class Arrivals {
  private table = TideTable.shared;

  arrive(ship: string): number {
    cranes.set(ship, crane);  // finding: tie.hidden-dependency
    crane.lift();
    this.table.rise();  // finding: tie.hidden-dependency
    return TideTable.shared.rise() + Tickets.draw() + Codes.instance.name(ship).length;
  }
}

export function Board(props: { ship: string }) {
  return <div>{props.ship}</div>;
}
