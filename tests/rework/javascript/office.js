const { TideTable } = require('./tides');

class Pilot {
  constructor(name, draught = 1) {
    this.name = name;
    this.draught = draught;
  }

  advice(hour) {
    const deep = TideTable.table().height(hour) > this.draught;
    return `${this.name}${deep ? ' sails at ' : ' waits at '}${hour}`;
  }
}

class HarbourPilot extends Pilot {
  constructor(name) {
    super(name, 4);
    this.home = TideTable.table().height(0);
  }
}

class Ferry {
  departure() {
    let hour = 0;
    while (TideTable.table().height(hour) < 6) hour += 1;
    return hour;
  }
}

class Office {
  constructor() {
    this.pilots = [];
  }

  hire(name, draught) {
    this.pilots.push(new Pilot(name, draught));
  }

  hireHome(name) {
    this.pilots.push(new HarbourPilot(name));
  }

  day() {
    const lines = this.pilots.map((pilot) => pilot.advice(4));
    lines.push(`ferry at ${new Ferry().departure()}`);
    return lines.join('\n');
  }
}

module.exports = { Pilot, Ferry, Office };
