// Objects of a class that changes, but that nobody changes: made at once, and only looked at. Near misses beside them.
class Course {
  constructor() {
    this.points = [0, 0];
  }

  from(points) {
    this.points[0] = points[0];
    return this;
  }

  turn(by) {
    const mine = this.points;
    mine[0] = mine[0] + by;
    return this;
  }
}

class Ship {
  constructor() {
    this.at = 0;
  }

  place(at) {
    this.at = at;
    return this;
  }

  follow(course) {
    const points = course.points;
    this.at = points[0];
    return this;
  }

  steer(course) {
    course.turn(1);
    return this;
  }

  keep(course) {
    this.course = course;
    return this;
  }
}

const INWARD = new Course().from([1, 2]);  // harmless: INWARD
const steered = new Course().from([1, 2]);  // entity: shared-instance steered eager language
const kept = new Course();  // entity: shared-instance kept eager language
const worked = new Ship();  // harmless: worked
const sheet = new Course();  // harmless: sheet

export function enter(at) {
  worked.place(at).follow(INWARD);
  return worked.at;
}

export function leave(at) {
  worked.place(at).steer(steered).keep(kept);
  return worked.at;
}

// Filled here, and looked at in a function that is called from here.
export function plan(at) {
  sheet.from([at]);
  return draw(at);
}

function draw(at) {
  return worked.follow(sheet).at;
}

// What the page makes; and an object that is given a member by its name in quotes.
export const backdrop = makeBackdrop();  // entity: shared-instance backdrop eager language

function makeBackdrop() {
  const made = document.createElement("div");
  made.classList.add("quay");
  return made;
}

class Log {
  constructor() {
    this.lines = 0;
  }

  line() {
    this.lines++;
  }
}

const log = new Log();  // entity: shared-instance log eager language
log["default"] = log;
log.line();

export function show() {
  backdrop.style.cursor = "wait";
  log.line();
}
