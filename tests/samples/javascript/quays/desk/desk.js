import { dues } from "../ledgers/dues.js";
