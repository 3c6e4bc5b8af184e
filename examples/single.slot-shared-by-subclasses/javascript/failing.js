// The night office finds the day office in the slot that both use.
class Office {
  static office() {
    if (!Office.one) Office.one = new this();
    return Office.one;
  }
}
Office.one = null;

class NightOffice extends Office {}

Office.office();
const night = NightOffice.office() instanceof NightOffice;
console.log(night ? 'a night office' : 'a day office at night');
process.exitCode = night ? 0 : 1;
