import * as ledger from '../ledgers/fees.js';
