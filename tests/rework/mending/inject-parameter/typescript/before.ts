export class TideTable {
  private static readonly table = new TideTable();
  private levels = [3, 5, 4];

  private constructor() {}

  static get(): TideTable {
    return TideTable.table;
  }

  raise(by: number): void {
    this.levels = this.levels.map((level) => level + by);
  }

  level(hour: number): number {
    return this.levels[hour % 3];
  }
}

export function mayEnter(
  draught: number,
  hour: number,
): boolean {
  return TideTable.get().level(hour) > draught;
}
