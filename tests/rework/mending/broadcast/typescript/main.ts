class Tides {
  private static shared = new Tides();
  private started = 0;

  static get(): Tides {
    return Tides.shared;
  }

  start(day: string): void {
    this.started++;
    console.log("tides " + this.started + day);
  }
}

class Berths {
  private static shared = new Berths();
  private started = 0;

  static get(): Berths {
    return Berths.shared;
  }

  start(day: string): void {
    this.started++;
    console.log("berths " + this.started + day);
  }
}

class Pilots {
  private static shared = new Pilots();
  private started = 0;

  static get(): Pilots {
    return Pilots.shared;
  }

  start(day: string): void {
    this.started++;
    console.log("pilots " + this.started + day);
  }
}

/** Opens the harbour. */
function open(day: string): void {
  Tides.get().start(day);
  Berths.get().start(day);
  Pilots.get().start("");
}

open("Monday");

export {};
