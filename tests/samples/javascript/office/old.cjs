const { BerthBook } = require('./books.js');

function book() {
  return BerthBook.getInstance();
}

function moor(ship) {
  book().assign(ship, 1);  // finding: coupling.hidden-dependency
  return book().count();
}

module.exports = { moor };
