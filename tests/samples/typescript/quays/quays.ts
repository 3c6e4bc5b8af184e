// Uses what stands further down.
export class Almanac {  // entity: singleton Almanac eager language
  static readonly one = new Almanac();  // finding: init.order-within-class
  static readonly pages = [1, 2, 3];  // harmless: pages
  private page: number;

  private constructor() {
    this.page = Almanac.pages.length;
  }

  turn(): void {
    this.page = this.page + 1;
  }
}
