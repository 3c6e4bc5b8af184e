let served = 2;

class Desk {
  private readonly open = 1;

  serve(ships: number): void {
    served += ships * this.open;
  }

  all(): number {
    return served;
  }
}

const desk = new Desk();
desk.serve(3);
console.log(desk.all());
