// A walk over a set or a map goes on when elements are taken out of it (ECMA-262 24.2.6.1).
class Bell {
  constructor() {
    this.ringers = new Set();
  }

  ring() {
    for (const ringer of this.ringers) {
      this.ringers.delete(ringer);  // near: lifetime.notify-while-changing
    }
  }
}

export function toll() {
  const bell = new Bell();
  bell.ring();
}
