import { once } from 'node:events';
import { connect, createServer } from 'node:net';
import type { AddressInfo, Server as NetServer, Socket } from 'node:net';

/** A line to the server that can be cut and mended, as a school's wireless network does by itself. */
export class CuttableLine {
  private readonly sockets = new Set<Socket>();
  private isCut = false;

  private next = 0;

  private constructor(
    private readonly listener: NetServer,
    private readonly targets: readonly number[],
  ) {
    listener.on('connection', (socket) => this.accept(socket));
  }

  /** To each of these ports in turn; one that takes no connections is passed by. */
  static async to(...ports: number[]): Promise<CuttableLine> {
    const listener = createServer().listen(0);
    await once(listener, 'listening');
    return new CuttableLine(listener, ports);
  }

  get url(): string {
    return `http://localhost:${(this.listener.address() as AddressInfo).port}`;
  }

  cut(): void {
    this.isCut = true;
    for (const socket of this.sockets) socket.destroy();
  }

  mend(): void {
    this.isCut = false;
  }

  close(): void {
    this.cut();
    this.listener.close();
  }

  private accept(socket: Socket): void {
    if (this.isCut) return void socket.destroy();
    this.join(socket, this.targets.length);
  }

  private join(socket: Socket, tries: number): void {
    if (tries === 0) return void socket.destroy();
    const onward = connect(this.targets[(this.next += 1) % this.targets.length]!, 'localhost');
    onward.once('error', () => this.join(socket, tries - 1));
    onward.once('connect', () => this.tie(socket, onward));
  }

  private tie(socket: Socket, onward: Socket): void {
    for (const [end, other] of [
      [socket, onward],
      [onward, socket],
    ] as const) {
      this.sockets.add(end);
      end.on('error', () => undefined);
      end.on('close', () => {
        this.sockets.delete(end);
        other.destroy();
      });
      end.pipe(other);
    }
  }
}
