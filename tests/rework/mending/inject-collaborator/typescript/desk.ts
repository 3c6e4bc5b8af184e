import { readFileSync, writeFileSync } from 'fs';

class TideFile {
  constructor(private readonly path: string) {}
  read(): string { return readFileSync(this.path, 'utf8'); }
}

export class Desk {
  private tides = new TideFile('desk.txt');
  constructor(private readonly port: string) {
  }
  height(): number { return this.tides.read().length + this.port.length; }
}

writeFileSync('desk.txt', 'low');
console.log(new Desk('quay').height());
