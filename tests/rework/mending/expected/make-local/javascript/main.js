class Desk {
  served = 2;

  open = 1;

  serve(ships) {
    this.served += ships * this.open;
  }

  all() {
    return this.served;
  }
}

const desk = new Desk();
desk.serve(3);
console.log(desk.all());
