// A slot for each class, in a table by class.
class Office {
  static office() {
    if (!Office.offices.has(this)) Office.offices.set(this, new this());
    return Office.offices.get(this);
  }
}
Office.offices = new Map();

class NightOffice extends Office {}

Office.office();
const night = NightOffice.office() instanceof NightOffice;
console.log(night ? 'a night office' : 'a day office at night');
process.exitCode = night ? 0 : 1;
