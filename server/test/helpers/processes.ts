import type { ChildProcess } from 'node:child_process';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo, Socket } from 'node:net';
import { connect, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { Client as Postgres } from 'pg';
import { fileURLToPath } from 'node:url';
import { databaseFor, dropDatabaseOf, POSTGRES } from './testDatabase.js';

const MAIN = fileURLToPath(new URL('../../dist/main.js', import.meta.url));
/** Address of a Redis server for tests; unset where there is none. */
export const REDIS = process.env.TEST_REDIS;
/** Whether several processes can be tried here. */
export const CAN_SHARE = POSTGRES !== undefined && REDIS !== undefined;

/** A process of the built server. */
export class ServerProcess {
  private constructor(
    private readonly child: ChildProcess,
    readonly port: number,
    /** Where the others reach it. */
    readonly address: string,
  ) {}

  static async start(env: Record<string, string>, port: number): Promise<ServerProcess> {
    const child = spawn(process.execPath, [MAIN], {
      env: { ...process.env, DOODLA_PORT: String(port), DOODLA_HOST: '127.0.0.1', ...env },
      stdio: ['ignore', 'ignore', process.env.LOUD ? 'inherit' : 'ignore'],
    });
    const started = new ServerProcess(child, port, env.DOODLA_ADDRESS ?? `http://127.0.0.1:${port}`);
    while (!(await started.isReady())) {
      if (child.exitCode !== null) throw new Error('the server did not start');
      await sleep(50);
    }
    return started;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async isReady(): Promise<boolean> {
    return fetch(`${this.url}/health/ready`).then(
      ({ status }) => status === 200,
      () => false,
    );
  }

  /** SIGSTOP and SIGCONT pause it and let it go on. */
  signal(signal: NodeJS.Signals): void {
    this.child.kill(signal);
  }

  /** Ends it, by default as a power cut would. Returns with what. */
  async end(signal: NodeJS.Signals = 'SIGKILL'): Promise<number | null> {
    if (this.child.exitCode === null && this.child.signalCode === null) {
      this.child.kill(signal);
      await once(this.child, 'exit');
    }
    return this.child.exitCode;
  }
}

/** Several processes on one database, one Redis and one data folder. */
export class Installation {
  readonly data = mkdtempSync(join(tmpdir(), 'doodla-many-'));
  private readonly processes: ServerProcess[] = [];

  private constructor(private readonly env: Record<string, string>) {}

  /** On the servers for tests, or others. */
  static async create(env: Record<string, string> = {}): Promise<Installation> {
    const made = new Installation({ DOODLA_REDIS: REDIS!, ...env });
    made.env.DOODLA_DATA = made.data;
    made.env.DOODLA_DATABASE ??= (await databaseFor(made.data))!;
    return made;
  }

  get database(): string {
    return this.env.DOODLA_DATABASE!;
  }

  /** The process that has a lesson in hand. */
  async holderOf(lesson: string): Promise<ServerProcess> {
    const rows = await queried<{ address: string }>(
      this.database,
      'SELECT address FROM process JOIN lease ON holder = process.id WHERE lesson = $1 ORDER BY renewed_at DESC',
      [lesson],
    );
    return this.processes.find(({ address }) => address === rows[0]?.address)!;
  }

  /** Those that are not the one. */
  othersThan(one: ServerProcess): ServerProcess[] {
    return this.processes.filter((each) => each !== one);
  }

  async start(env: Record<string, string> = {}, port?: number): Promise<ServerProcess> {
    const started = await ServerProcess.start({ ...this.env, ...env }, port ?? (await freePort()));
    this.processes.push(started);
    return started;
  }

  async remove(): Promise<void> {
    for (const each of this.processes) {
      each.signal('SIGCONT');
      await each.end();
    }
    await dropDatabaseOf(this.data);
    rmSync(this.data, { recursive: true, force: true });
  }
}

/** A line to ports of this computer, one after the other, that can be cut. */
export class Line {
  private readonly open = new Set<Socket>();
  private readonly server = createServer((socket) => this.join(socket));
  private next = 0;
  isCut = false;

  /** `ports` may be changed; whoever takes no connections is passed by. */
  constructor(readonly ports: number[]) {}

  static async to(...ports: number[]): Promise<Line> {
    const line = new Line(ports);
    line.server.listen(0, '127.0.0.1');
    await once(line.server, 'listening');
    return line;
  }

  get port(): number {
    return (this.server.address() as AddressInfo).port;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Ends what is connected; `isCut` keeps others away too. */
  cut(): void {
    for (const socket of this.open) socket.destroy();
  }

  close(): void {
    this.cut();
    this.server.close();
  }

  private join(socket: Socket, tries = this.ports.length): void {
    socket.on('error', () => socket.destroy());
    if (this.isCut || tries === 0) {
      socket.destroy();
      return;
    }
    const to = connect(this.ports[(this.next += 1) % this.ports.length]!, '127.0.0.1');
    to.once('error', () => this.join(socket, tries - 1));
    to.once('connect', () => {
      for (const [one, other] of [
        [socket, to],
        [to, socket],
      ] as const) {
        this.open.add(one);
        one.pipe(other);
        one.once('close', () => {
          this.open.delete(one);
          other.destroy();
        });
        one.on('error', () => one.destroy());
      }
    });
  }
}

/** The rows that a query finds in a database. */
export async function queried<Row extends object>(
  url: string,
  text: string,
  values: readonly unknown[],
): Promise<Row[]> {
  const client = new Postgres({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<Row>(text, [...values])).rows;
  } finally {
    await client.end();
  }
}

export async function freePort(): Promise<number> {
  const server = createServer();
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return port;
}
