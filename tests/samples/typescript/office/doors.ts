// The second is refused.
export class Foghorn {  // entity: singleton Foghorn eager language
  private static made = false;  // entity: static-field made eager language
  blown = 0;

  constructor() {
    if (Foghorn.made) {
      throw new Error('there is one already');
    }
    Foghorn.made = true;
  }

  blow(): void {
    this.blown += 1;
  }
}

export const horn = new Foghorn();
