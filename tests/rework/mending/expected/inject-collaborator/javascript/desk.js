const fs = require('fs');

class TideFile {
  constructor(path) { this.path = path; }
  read() { return fs.readFileSync(this.path, 'utf8'); }
}

class Desk {
  constructor(port, tides) {
    this.port = port;
    this.tides = tides ?? new TideFile(port + '.txt');
  }
  height() { return this.tides.read().length; }
}

class Board {
  tides;
  constructor(rows, tides) { this.tides = tides ?? new TideFile('board.txt'); this.rows = rows; }
  width() { return this.tides.read().length + this.rows; }
}

if (require.main === module) {
  fs.writeFileSync('north.txt', 'four');
  fs.writeFileSync('board.txt', 'six ty');
  console.log(new Desk('north').height() + new Board(1).width());
}

module.exports = { Desk, Board };
