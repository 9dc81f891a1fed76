import type { ChildProcess } from 'node:child_process';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const MAIN = fileURLToPath(new URL('../../server/dist/main.js', import.meta.url));

/** The built server as a process of its own, on a data folder of its own. */
export class Server {
  private child: ChildProcess | undefined;
  /** What it has said at its starts. */
  printed = '';

  private constructor(
    readonly port: number,
    private readonly host: string,
    private readonly env: Record<string, string>,
    readonly data: string,
  ) {}

  /** On a data folder of its own, if none is given. */
  static async start(
    env: Record<string, string> = {},
    host = 'localhost',
    data = mkdtempSync(join(tmpdir(), 'doodla-e2e-')),
  ): Promise<Server> {
    const server = new Server(await freePort(), host, env, data);
    await server.run();
    return server;
  }

  get url(): string {
    return `http://${this.host}:${this.port}`;
  }

  /** Starts the process, again after `kill`; one that runs is left as it is. */
  async run(): Promise<void> {
    if (this.child && this.child.exitCode === null) return;
    const env = { ...process.env, ...this.env, DOODLA_PORT: String(this.port), DOODLA_DATA: this.data };
    const child = spawn(process.execPath, [MAIN], { env, stdio: ['ignore', 'pipe', 'inherit'] });
    this.child = child;
    child.stdout.setEncoding('utf8').on('data', (text: string) => (this.printed += text));
    await Promise.race([
      once(child.stdout, 'data'),
      once(child, 'exit').then(() => Promise.reject(new Error('the server did not start'))),
    ]);
  }

  /** Ends the process as a power cut would. */
  async kill(): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null) return;
    child.kill('SIGKILL');
    await once(child, 'exit');
    this.child = undefined;
  }

  async remove(): Promise<void> {
    await this.kill();
    rmSync(this.data, { recursive: true, force: true });
  }
}

export async function freePort(): Promise<number> {
  const probe = createServer().listen(0);
  await once(probe, 'listening');
  const { port } = probe.address() as AddressInfo;
  probe.close();
  await once(probe, 'close');
  return port;
}
