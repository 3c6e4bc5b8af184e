import { fees } from '../ledgers/fees.js';
