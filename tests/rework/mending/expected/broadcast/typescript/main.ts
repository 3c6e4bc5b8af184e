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

/** Tells those who listen, in the order in which they came, that the program starts. */
class StartUp {
  private readonly listeners: (() => void)[] = [];

  add(listener: () => void): void {
    this.listeners.push(listener);
  }

  announce(): void {
    this.listeners.forEach((listener) => listener());
  }
}

/** Opens the harbour. */
function open(day: string): void {
  const startUp = new StartUp();
  startUp.add(() => { Tides.get().start(day); });
  startUp.add(() => { Berths.get().start(day); });
  startUp.add(() => { Pilots.get().start(""); });
  startUp.announce();
}

open("Monday");

export {};
