export class Sirens {
  constructor() {
    this.sounded = 0;
  }

  sound() {
    this.sounded += 1;
  }
}
