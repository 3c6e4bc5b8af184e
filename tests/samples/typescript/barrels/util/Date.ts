export class Clock {
  offset = 0;
  shift(by: number): void {
    this.offset += by;
  }
}
export const Date = new Clock();  // entity: shared-instance Date eager language
