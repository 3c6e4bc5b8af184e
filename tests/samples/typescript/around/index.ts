// The package's own function has the name of one that every program has: a module inside the package means the latter.
import { Desk } from './inner/desk';

let asked = 0;  // entity: global-variable asked eager language
let desk: Desk | undefined;  // entity: shared-instance desk lazy single-threaded

export function fetch(): number {
  if (!desk) {
    desk = new Desk();  // near: init.reentrant
  }
  asked += 1;
  return desk.lines + asked;
}
