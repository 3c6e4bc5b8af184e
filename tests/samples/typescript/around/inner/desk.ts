export class Desk {
  lines = 0;

  constructor() {
    this.load();
  }

  load(): void {
    this.lines += 1;
    fetch('tides');
  }
}
