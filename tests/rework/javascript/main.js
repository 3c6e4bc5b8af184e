const { Office } = require('./office');
const { TideTable } = require('./tides');

const office = new Office();
office.hire('Wren', 8);
office.hire('Tern');
office.hireHome('Gull');
console.log(office.day());
console.log(`${TideTable.table().asked} looks`);
