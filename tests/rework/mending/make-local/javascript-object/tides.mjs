export class TideTable {
  #first = 4;

  height(day) {
    return this.#first + day;
  }

  raise(by) {
    this.#first += by;
  }
}

export const table = new TideTable();
