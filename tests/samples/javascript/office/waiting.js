// A gap between the test and the assignment; and the sound way beside it.
import { connect } from 'harbour-radio';

class Radio {
  constructor(line) {
    this.line = line;
    this.sent = 0;
  }
  send() {
    this.sent += 1;
    return this.sent;
  }
}

let radio = null;  // entity: shared-instance radio lazy single-threaded
let pending = null;  // entity: global-variable pending eager language

export async function getRadio() {
  if (radio === null) {
    const line = await connect();  // finding: thread.await-gap
    radio = new Radio(line);
  }
  return radio;
}

export function getRadioOnce() {
  if (pending === null) {
    pending = connect().then((line) => new Radio(line));
  }
  return pending;
}
