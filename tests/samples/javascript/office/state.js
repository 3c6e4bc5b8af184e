import clock, { BerthBook, PilotRoster, tickets, mast } from './books.js';

const NAMES = { A: 'anchor' };  // harmless: NAMES
const LIMIT = 12;  // harmless: LIMIT
const waiting = [];  // entity: global-variable waiting eager language
let count = 0;  // entity: global-variable count eager language
export let open = true;  // entity: global-variable open eager language

export function arrive(ship) {
  waiting.push(ship);  // finding: lifetime.grows-forever
  count += 1;
  BerthBook.getInstance().assign(ship, 4);
  new PilotRoster().add(ship);
  mast.hoist();  // near: coupling.hidden-dependency
  clock.tick();
  if (tickets.draw() > LIMIT) {
    open = false;
  }
  return NAMES.A + BerthBook.getInstance().count() + count;
}
