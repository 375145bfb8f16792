import { appendFileSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { ConsoleLogger, type LogLevel } from '@nestjs/common';

/** A log of at most so many bytes, and so many older ones beside it. */
export const logLimits = { bytes: 1_000_000, older: 4 } as const;

/** Appends lines to a file; when it is full it becomes `.1`, what was `.1` becomes `.2`, and the oldest goes. */
export class LogFile {
  private size: number;

  constructor(
    private readonly file: string,
    private readonly limits: { readonly bytes: number; readonly older: number } = logLimits,
  ) {
    mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
    this.size = sizeOf(file);
  }

  /** Never throws: a log that cannot be written must not stop the show. */
  write(line: string): void {
    const text = `${line}\n`;
    try {
      if (this.size > 0 && this.size + text.length > this.limits.bytes) this.rotate();
      appendFileSync(this.file, text, { mode: 0o600 });
      this.size += Buffer.byteLength(text);
    } catch {
      // A full disk, most likely: who asked is told by other means.
    }
  }

  private rotate(): void {
    rmSync(`${this.file}.${this.limits.older}`, { force: true });
    for (let n = this.limits.older - 1; n >= 0; n -= 1) {
      const from = n === 0 ? this.file : `${this.file}.${n}`;
      if (sizeOf(from) > 0) renameSync(from, `${this.file}.${n + 1}`);
    }
    this.size = 0;
  }
}

function sizeOf(file: string): number {
  try {
    return statSync(file).size;
  } catch {
    return 0;
  }
}

/** What the framework says of itself at every start. */
const framework: ReadonlySet<string> = new Set([
  'NestFactory',
  'InstanceLoader',
  'RoutesResolver',
  'RouterExplorer',
  'NestApplication',
]);

/** What the server has to say goes into the log; faults and warnings to standard error too. */
export class FileLogger extends ConsoleLogger {
  constructor(private readonly into: LogFile | null) {
    super({ logLevels: ['error', 'warn', 'log'], colors: false });
  }

  protected override printMessages(messages: unknown[], context = '', level: LogLevel = 'log'): void {
    if (level === 'log' && framework.has(context)) return;
    for (const message of messages) {
      const text =
        typeof message === 'string'
          ? message
          : message instanceof Error
            ? (message.stack ?? message.message)
            : JSON.stringify(message);
      this.into?.write(`${new Date().toISOString()} ${level} ${context}: ${text}`);
      if (level !== 'log') process.stderr.write(`${level} ${context}: ${text}\n`);
    }
  }

  protected override printStackTrace(stack: string): void {
    if (stack) this.into?.write(stack);
  }
}
