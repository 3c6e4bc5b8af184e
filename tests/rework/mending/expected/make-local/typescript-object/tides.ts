export class TideTable {
  private first = 4;

  constructor() {}

  height(day: number): number {
    return this.first + day;
  }

  raise(by: number): void {
    this.first += by;
  }
}
