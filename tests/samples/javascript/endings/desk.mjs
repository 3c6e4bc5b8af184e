import { post } from './board.mjs';

export function open() {
  post();
}
