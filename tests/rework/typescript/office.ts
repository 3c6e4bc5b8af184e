import { Ferry, Pilot } from './crew/pilot';

export class Office {
  private readonly pilots: Pilot[] = [];

  hire(name: string, draught: number): void {
    this.pilots.push(new Pilot(name, draught));
  }

  hireSmall(name: string): void {
    this.pilots.push(new Pilot(name));
  }

  day(): string {
    const lines = this.pilots.map((pilot) => pilot.advice(4));
    lines.push(`ferry at ${new Ferry().departure()}`);
    return lines.join('\n');
  }
}
