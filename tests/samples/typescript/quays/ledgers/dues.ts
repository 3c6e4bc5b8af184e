// The dues of the harbour, in a layer of their own.
export class HarbourDues {  // entity: singleton HarbourDues eager language
  private static readonly dues = new HarbourDues();
  private sum = 0;

  private constructor() {}

  static get(): HarbourDues {
    return HarbourDues.dues;
  }

  enter(coins: number): void {
    this.sum = this.sum + coins;
  }

  clear(): void {
    this.sum = 0;
  }

  total(): number {
    return this.sum;
  }
}
