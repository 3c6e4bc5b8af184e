import { TideTable } from '../tides';

export class Pilot {
  constructor(private readonly name: string, private readonly draught: number = 1) {}

  advice(hour: number): string {
    const deep = TideTable.instance().height(hour) > this.draught;
    return `${this.name}${deep ? ' sails at ' : ' waits at '}${hour}`;
  }
}

export class Ferry {
  departure(): number {
    let hour = 0;
    while (TideTable.instance().height(hour) < 6) hour += 1;
    return hour;
  }
}
