/**
 * Boards of the harbour, with types written in.
 * @flow
 */
import type { Ship } from './ships';

// Near miss: what is inside a function runs when the function does.
const Board: component(ref?: Slot<Ship>, ...props: Ship) = ({ ref, ...props }) => {
  const lines = [rows.first];  // near: init.order-within-class
  return lines.concat(props.name);
};

const rows = makeRows({ first: 'name', second: 'berth' });  // harmless: rows

export default Board;
