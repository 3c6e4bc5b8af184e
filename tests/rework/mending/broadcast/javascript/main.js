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

/** Opens the harbour. */
function open(day) {
  Tides.get().start(day);
  Berths.get().start(day);
  Pilots.get().start("");
}

open("Monday");
