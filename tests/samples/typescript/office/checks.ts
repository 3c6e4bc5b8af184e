// Open to subclasses.
export class Harbourmaster {  // entity: singleton Harbourmaster lazy single-threaded
  private static master: Harbourmaster | null = null;
  private name = 'none';

  protected constructor() {}  // finding: single.subclassable

  static get(): Harbourmaster {
    if (this.master === null) {
      this.master = new Harbourmaster();
    }
    return this.master;
  }

  rename(to: string): void {
    this.name = to;
  }
}

// Nothing before it is opened.
export class RadarPlot {  // entity: singleton RadarPlot lazy single-threaded
  private static plot: RadarPlot | undefined;
  private echoes = 0;

  private constructor() {}

  static open(): void {
    RadarPlot.plot = new RadarPlot();
  }

  static get(): RadarPlot | undefined {
    return RadarPlot.plot;  // finding: single.may-return-nothing
  }

  echo(): void {
    this.echoes += 1;
  }
}

// Others run between the test and the assignment.
export class DutyLog {  // entity: singleton DutyLog lazy single-threaded
  private static log?: DutyLog;
  private lines: string[] = [];

  private constructor() {}

  static async open(): Promise<DutyLog> {
    if (!DutyLog.log) {
      await Promise.resolve();  // finding: thread.await-gap
      DutyLog.log = new DutyLog();
    }
    return DutyLog.log;
  }

  write(line: string): void {
    this.lines.push(line);  // finding: lifetime.grows-forever
  }
}

// The promise is kept, so the second call finds it.
export class TideFeed {  // entity: singleton TideFeed lazy single-threaded
  private static feed?: Promise<TideFeed>;
  private level = 0;

  private constructor() {}

  static open(): Promise<TideFeed> {
    if (!TideFeed.feed) {
      TideFeed.feed = Promise.resolve(new TideFeed());
    }
    return TideFeed.feed;
  }

  rise(): void {
    this.level += 1;
  }
}

function Injectable(): (target: unknown) => void {
  return () => undefined;
}

@Injectable()
export class CustomsDesk {  // entity: container-managed CustomsDesk
  constructor(private readonly plot: RadarPlot) {}
}

export class Inspector {
  constructor(private readonly desk: CustomsDesk) {}
}
