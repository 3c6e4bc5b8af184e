declare const console: { log(line: string): void };
