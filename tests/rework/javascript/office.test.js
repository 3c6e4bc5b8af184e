const test = require('node:test');
const assert = require('node:assert');
const { Pilot, Ferry } = require('./office');

test('a deep ship waits', () => {
  assert.strictEqual(new Pilot('Wren', 8).advice(4), 'Wren waits at 4');
});

test('the ferry leaves at three', () => {
  assert.strictEqual(new Ferry().departure(), 3);
});
