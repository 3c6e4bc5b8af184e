// The tides of the day.
export class TideTable {
  private static table: TideTable | null = null;
  private looks = 0;

  private constructor() {}

  static instance(): TideTable {
    if (TideTable.table === null) TideTable.table = new TideTable();
    return TideTable.table;
  }

  height(hour: number): number {
    this.looks += 1;
    return 3 + (hour % 6);
  }

  asked(): number {
    return this.looks;
  }
}
