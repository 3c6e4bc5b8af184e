export class Tides {
  private static first = 4;

  static height(day: number): number {
    return Tides.first + day;
  }

  static raise(by: number): void {
    Tides.first += by;
  }

  static forget(): void {
    Tides.first = 0;
  }
}

export class TidesWrapper {
  height(day: number): number {
    return Tides.height(day);
  }

  raise(by: number): void {
    Tides.raise(by);
  }
}
