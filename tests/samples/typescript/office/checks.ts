// Nothing before it is opened.
export class RadarPlot {  // entity: singleton RadarPlot lazy single-threaded
  private static plot: RadarPlot | undefined;
  private echoes = 0;

  private constructor() {}

  static open(): void {
    RadarPlot.plot = new RadarPlot();
  }

  static get(): RadarPlot | undefined {
    return RadarPlot.plot;
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
