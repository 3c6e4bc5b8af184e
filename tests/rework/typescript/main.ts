import { Office } from './office';
import { TideTable } from './tides';

const office = new Office();
office.hire('Wren', 8);
office.hireSmall('Tern');
console.log(office.day());
console.log(`${TideTable.instance().asked()} looks`);
