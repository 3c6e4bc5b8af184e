import { HarbourDues } from "../ledgers/dues";
