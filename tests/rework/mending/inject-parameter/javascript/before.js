class TideTable {
  static #table = new TideTable();
  levels = [3, 5, 4];

  static get() {
    return TideTable.#table;
  }

  raise(by) {
    this.levels = this.levels.map((level) => level + by);
  }

  level(hour) {
    return this.levels[hour % 3];
  }
}

function mayEnter(draught, hour) {
  return TideTable.get().level(hour) > draught;
}

const lowest = () => 3;

console.log(mayEnter(3, 1), lowest());
