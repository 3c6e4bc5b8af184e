class Tides {
  static shared = new Tides();
  started = 0;

  static get() {
    return Tides.shared;
  }

  start(day) {
    this.started++;
    console.log("tides " + this.started + day);
  }
}

class Berths {
  static shared = new Berths();
  started = 0;

  static get() {
    return Berths.shared;
  }

  start(day) {
    this.started++;
    console.log("berths " + this.started + day);
  }
}

class Pilots {
  static shared = new Pilots();
  started = 0;

  static get() {
    return Pilots.shared;
  }

  start(day) {
    this.started++;
    console.log("pilots " + this.started + day);
  }
}

/** Tells those who listen, in the order in which they came, that the program starts. */
class StartUp {
  listeners = [];

  add(listener) {
    this.listeners.push(listener);
  }

  announce() {
    this.listeners.forEach((listener) => listener());
  }
}

/** Opens the harbour. */
function open(day) {
  const startUp = new StartUp();
  startUp.add(() => { Tides.get().start(day); });
  startUp.add(() => { Berths.get().start(day); });
  startUp.add(() => { Pilots.get().start(""); });
  startUp.announce();
}

open("Monday");
