
class Desk {
  private served = 2;
  private readonly open = 1;

  serve(ships: number): void {
    this.served += ships * this.open;
  }

  all(): number {
    return this.served;
  }
}

const desk = new Desk();
desk.serve(3);
console.log(desk.all());
