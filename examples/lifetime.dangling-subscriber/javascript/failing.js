// The display is closed, and the mast still calls it.
class SignalMast {
  constructor() {
    this.displays = [];
  }

  attach(display) {
    this.displays.push(display);
  }

  raise(signal) {
    for (const display of this.displays) display.heard(signal);
  }
}

const mast = new SignalMast();

class Display {
  constructor() {
    this.open = true;
    this.late = 0;
    mast.attach(this);
  }

  heard() {
    if (!this.open) this.late += 1;
  }

  close() {
    this.open = false;
  }
}

function watch() {
  const display = new Display();
  display.close();
  mast.raise(3);
  return display.late;
}

const late = watch();
console.log(`${late} signals to a closed display`);
process.exitCode = late === 0 ? 0 : 1;
