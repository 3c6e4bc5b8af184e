// Stores of the harbour: what stands alone in its file and is handed out by it.
import { Sirens } from './sirens.js';

// Near miss: who imports it uses it.
const sirens = new Sirens();  // entity: shared-instance sirens eager language // near: start.eager-unused

export default sirens;
