export class TideTable {  // entity: singleton TideTable lazy single-threaded
  private static instance?: TideTable;
  private level = 0;

  private constructor() {}

  static get shared(): TideTable {
    return (TideTable.instance ??= new TideTable());
  }

  rise(): number {
    this.level += 1;
    return this.level;
  }
}

// Made with the module; nothing in it ever changes.
export class Codes {  // entity: singleton Codes eager language
  static readonly instance = new Codes();
  private constructor() {}
  name(code: string): string {
    return code;
  }
}

export namespace Tickets {
  let next = 1;  // entity: global-variable next eager language
  export function draw(): number {
    next += 1;
    return next;
  }
}

class Crane {
  constructor(private readonly port: string, public loads: number) {}
  lift(): void {
    this.loads++;
  }
}

export const crane: Crane = new Crane('north', 0);  // entity: shared-instance crane eager language
export const cranes = new Map<string, Crane>();  // entity: registry cranes eager language

export enum Flag {
  Up,
  Down,
}
