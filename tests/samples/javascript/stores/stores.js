// Stores of the harbour: what stands alone in its file and is handed out by it.
import { Sirens } from './sirens.js';

// Near miss: who imports it uses it.
const sirens = new Sirens();  // entity: shared-instance sirens eager language // near: init.eager-unused

export default sirens;

// Added to by a function that is kept for later; near miss: while the file is loaded.
const heard = [];  // entity: global-variable heard eager language
const posted = [];  // harmless: posted

process.on('message', (what) => {
  heard.push(what);  // finding: lifetime.grows-forever
});

posted.push('open');  // near: lifetime.grows-forever

export function lastHeard() {
  return heard[heard.length - 1] || posted[0];
}
