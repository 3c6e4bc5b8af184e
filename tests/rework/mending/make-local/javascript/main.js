class Desk {
  static served = 2;

  open = 1;

  serve(ships) {
    Desk.served += ships * this.open;
  }

  all() {
    return Desk.served;
  }
}

const desk = new Desk();
desk.serve(3);
console.log(desk.all());
