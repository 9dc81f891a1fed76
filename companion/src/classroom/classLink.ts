import type { LogRef, Mark, Page, Surface } from '@doodla/core';
import { FREE, orderedPages, ordersBeside } from '@doodla/core';
import type { Line } from '@doodla/core/client';
import { ClassClient, LiveInk, LogClient, SocketLine, Store } from '@doodla/core/client';
import { uploadPicture } from '@web/api/uploadPicture';
import { request } from '@web/api/http';
import { BrowserOutbox } from '@web/live/outbox';
import { sayRefusal, sentenceOf } from '@web/words/sentences';
import type { WebPageReply } from '@doodla/core';
import { say } from '../words';
import { nanoid } from 'nanoid';
import { io } from 'socket.io-client';
import type { Paired } from './pairing';

/** A class, or a lesson that is being prepared, that the companion is in: its pages, what is written on them, and what it puts there. */
export class ClassLink {
  readonly line: Line;
  /** Undefined in a lesson. */
  readonly classroom: ClassClient | undefined;
  readonly log: LogClient;
  readonly ink: LiveInk;
  readonly pages = new Store<readonly Page[]>([]);
  /** What could not be done, in a sentence. */
  readonly problem = new Store<string | undefined>(undefined);
  /** The class; undefined in a lesson. */
  readonly sitting: string | undefined;
  /** Address of what is asked for by REST. */
  private readonly at: string;
  private readonly stops: (() => void)[];

  constructor(readonly place: Paired) {
    const { server, token } = place;
    const socket = io(server, {
      path: '/live',
      transports: ['websocket'],
      reconnectionDelay: 300,
      reconnectionDelayMax: 3000,
      query: { for: place.lesson },
      auth: { token },
    });
    this.line = new SocketLine(socket, undefined, sentenceOf);
    this.sitting = 'sitting' in place ? place.sitting : undefined;
    const ref: LogRef =
      this.sitting === undefined
        ? { kind: 'lesson', id: place.lesson }
        : { kind: 'sitting', id: this.sitting };
    this.classroom = this.sitting === undefined ? undefined : new ClassClient(this.sitting, this.line);
    this.at = `${server}/api/${ref.kind}s/${ref.id}`;
    this.ink = new LiveInk(ref, this.line);
    this.log = new LogClient(ref, this.line, {
      say: sayRefusal,
      situation: () => FREE,
      startsAnew: true,
      // What waits is sent after a reload; without room it is sent while this page is open.
      outboxFor: (owner) => new BrowserOutbox(owner, () => undefined),
    });
    this.stops = [
      this.log.touched.subscribe(({ pages, arrived }) => {
        if (pages.size > 0 || arrived !== undefined) this.pages.set(this.shownPages());
      }),
      this.log.refused.subscribe((sentence) => this.problem.set(sentence)),
    ];
    if (this.classroom)
      this.stops.push(this.classroom.refused.subscribe((sentence) => this.problem.set(sentence)));
  }

  /** Resolves when the class can be written to. Throws Error with a sentence where its teacher has taken the companion out. */
  async opened(): Promise<void> {
    let stop = (): void => undefined;
    const out = new Promise<never>((_, reject) => {
      const look = () => this.line.status.get() === 'rejected' && reject(new Error(say('thrownOut')));
      stop = this.line.status.subscribe(look);
      look();
    });
    await Promise.race([this.log.hasOpened, out]).finally(stop);
  }

  /** Stores a picture with the class. Throws RequestError. */
  upload(picture: Blob): Promise<string> {
    return uploadPicture(this.at, picture, this.place.token);
  }

  /** Puts pictures on pages of their own after the page that the class is on, else at the end, and turns the class to the first. Throws Error with a sentence. */
  async bringPictures(pictures: readonly Blob[], title: string): Promise<void> {
    await this.opened();
    const pages: Page[] = [];
    for (const picture of pictures) {
      const { width, height } = await createImageBitmap(picture);
      const surface: Surface = { kind: 'picture', material: await this.upload(picture) };
      const k = PAGE_WIDTH / width;
      pages.push(this.pageAfter(pages.at(-1), { title, width: PAGE_WIDTH, height: height * k, surface }));
    }
    this.log.perform(pages.map((page) => ({ do: 'addPage', page })));
    if (pages[0]) this.classroom?.turn(pages[0].id);
  }

  /** Puts a copy of a page after the page that the class is on, else at the end, with marks on it. Throws Error with a sentence. */
  async bringCopy(html: string, width: number, marks: readonly Mark[]): Promise<WebPageReply> {
    const form = new FormData();
    form.append('file', new Blob([html], { type: 'text/html' }), 'page.html');
    const after = this.classroom?.state.get()?.page;
    const asked = new URLSearchParams({ width: String(width), ...(after !== undefined && { after }) });
    const reply = await request<WebPageReply>(
      'POST',
      `${this.at}/webpages${this.classroom ? '' : '/live'}?${asked}`,
      form,
      { token: this.place.token },
    );
    await this.waitFor(reply.page);
    const own = marks.flatMap((mark) => this.ownMark(mark, reply.page));
    for (let i = 0; i < own.length; i += MOST_AT_ONCE)
      this.log.perform(own.slice(i, i + MOST_AT_ONCE).map((mark) => ({ do: 'add', mark })));
    this.classroom?.turn(reply.page);
    return reply;
  }

  /** A mark of the tab as one of the class's, on a page. */
  ownMark(mark: Mark, page: string): Mark[] {
    const author = this.log.actor?.id;
    return author === undefined ? [] : [{ ...mark, id: nanoid(), page, author, space: 'class' }];
  }

  /** Resolves when the server has all that was done here. */
  sent(): Promise<void> {
    return new Promise((resolve) => {
      const look = () => {
        if (this.log.pending.length > 0) return;
        stop();
        resolve();
      };
      const stop = this.log.status.subscribe(look);
      look();
    });
  }

  close(): void {
    for (const stop of this.stops) stop();
    this.ink.close();
    this.log.close();
    this.classroom?.close();
    this.line.close();
  }

  private shownPages(): Page[] {
    return orderedPages(this.log.state.pages.values()).filter(({ removed }) => !removed);
  }

  private pageAfter(
    before: Page | undefined,
    page: Pick<Page, 'title' | 'width' | 'height' | 'surface'>,
  ): Page {
    const known = [...this.log.state.pages.values(), ...(before ? [before] : [])];
    const beside = before?.id ?? this.classroom?.state.get()?.page ?? '';
    return { ...page, id: nanoid(), order: ordersBeside(known, beside)[0]!, removed: false };
  }

  /** Resolves when a page of the class is known here. */
  private waitFor(page: string): Promise<void> {
    return new Promise((resolve) => {
      const look = () => {
        if (!this.log.state.pages.has(page)) return;
        stop();
        resolve();
      };
      const stop = this.log.touched.subscribe(look);
      look();
    });
  }
}

/** Width of a page that shows a picture, page units. */
const PAGE_WIDTH = 1280;
/** Marks in one step; the server takes messages of so much. */
const MOST_AT_ONCE = 50;
