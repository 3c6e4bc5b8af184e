// Between finding no table and keeping one, other calls run.
let table = null;
let made = 0;

class TideTable {
  constructor(heights) {
    made += 1;
    this.heights = heights;
  }
}

const readHeights = () => new Promise((done) => setTimeout(() => done([3, 1, 4]), 20));

async function tideTable() {
  if (table === null) {
    const heights = await readHeights();
    table = new TideTable(heights);
  }
  return table;
}

Promise.all([tideTable(), tideTable(), tideTable()]).then(() => {
  console.log(`${made} made`);
  process.exitCode = made === 1 ? 0 : 1;
});
