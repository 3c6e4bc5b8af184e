export class TideTable {
  private static one: TideTable | null = null;
  private level = 3;

  private constructor() {}

  static get(): TideTable {
    if (TideTable.one === null) TideTable.one = new TideTable();
    return TideTable.one;
  }

  rise(): number {
    this.level += 1;
    return this.level;
  }
}

console.log(TideTable.get().rise() + TideTable.get().rise());
