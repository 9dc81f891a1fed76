import { Injectable } from '@nestjs/common';
import type { Page, ScreenState, ViewPicture } from '@doodla/core';
import { ordersBeside, orderedPages, SCREEN_PAGE_WIDTH } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { Problem, notFound } from '../http/problem.js';
import { ClassesService } from '../live/classes.service.js';
import { LogsService, SERVER } from '../live/logs.service.js';
import { SittingsService } from '../sittings/sittings.service.js';

interface Shown extends ScreenState {
  /** The connection that the parts come by; undefined while it is gone. */
  socket: string | undefined;
}

/** Most pages that the views of one class may take. */
const MAX_VIEWS = 300;

/** Screens that are shown to classes: who shows, on which page, and the pages of their views. */
@Injectable()
export class ScreensService {
  /** By sitting. Not stored: after a restart a presenter connects anew and goes on. */
  private readonly shown = new Map<string, Shown>();
  /** Students who may present, by sitting. */
  private readonly allowed = new Map<string, Set<string>>();

  constructor(
    private readonly sittings: SittingsService,
    private readonly logs: LogsService,
    private readonly classes: ClassesService,
  ) {}

  /** Begins to show a screen, or goes on on a page of it. Throws Problem where that is not allowed. */
  async start(
    sittingId: string,
    presenter: { id: string; isTeacher: boolean; socket: string },
    size: { width: number; height: number },
    page?: string,
  ): Promise<string> {
    await this.mayPresent(sittingId, presenter);
    const id = page !== undefined && (await this.hasView(sittingId, page)) ? page : undefined;
    const shownPage = id ?? (await this.addView(sittingId, size));
    this.shown.set(sittingId, {
      presenter: presenter.id,
      page: shownPage,
      panes: [],
      socket: presenter.socket,
    });
    await this.tell(sittingId, shownPage);
    return shownPage;
  }

  /** A page for a view that was not seen before. */
  async view(sittingId: string, socket: string, size: { width: number; height: number }): Promise<string> {
    const shown = this.of(sittingId, socket);
    const page = await this.addView(sittingId, size);
    await this.turnFrom(sittingId, shown, page, []);
    return page;
  }

  /** Turns the class to a view that was seen before. */
  async show(sittingId: string, socket: string, page: string, panes: Shown['panes']): Promise<void> {
    const shown = this.of(sittingId, socket);
    if (!(await this.hasView(sittingId, page))) throw notFound('This page');
    await this.turnFrom(sittingId, shown, page, panes);
  }

  /** Puts pictures under a view; who has lost the connection may do so too, with what was seen last. */
  async keep(
    sittingId: string,
    { id: presenter, socket }: { id: string; socket: string },
    page: string,
    pictures: readonly ViewPicture[],
  ): Promise<void> {
    if (this.shown.get(sittingId)?.socket !== undefined || !this.isPresenter(sittingId, presenter))
      this.of(sittingId, socket);
    if (!(await this.hasView(sittingId, page))) throw notFound('This page');
    const set = { surface: { kind: 'view', pictures } } as const;
    await this.logs.append(sittingId, SERVER, {
      id: randomUUID(),
      changes: [{ do: 'patchPage', page, set }],
    });
  }

  async stop(sittingId: string, actor: { id: string; isTeacher: boolean }): Promise<void> {
    const shown = this.shown.get(sittingId);
    if (!shown) return;
    if (!actor.isTeacher && shown.presenter !== actor.id)
      throw new Problem(403, 'not-your-screen', 'Only who shows the screen, or the teacher, can stop it.');
    this.shown.delete(sittingId);
    await this.clearAway(sittingId);
    await this.tell(sittingId);
  }

  /** Holds what was shown by a connection that is gone until it is shown again or stopped. */
  async dropped(socket: string): Promise<void> {
    for (const [sittingId, shown] of this.shown) {
      if (shown.socket !== socket) continue;
      shown.socket = undefined;
      const { endedAt } = await this.sitting(sittingId);
      if (endedAt !== null) this.shown.delete(sittingId);
      await this.tell(sittingId);
    }
  }

  /** Lets a student present, or takes that back and stops what they show. */
  async allow(sittingId: string, student: string, may: boolean): Promise<void> {
    const allowed = this.allowed.get(sittingId) ?? new Set();
    if (may) allowed.add(student);
    else allowed.delete(student);
    this.allowed.set(sittingId, allowed);
    if (!may && this.shown.get(sittingId)?.presenter === student) this.shown.delete(sittingId);
    await this.tell(sittingId);
  }

  /** The connection that shows a screen to a class. */
  socketOf(sittingId: string): string | undefined {
    return this.shown.get(sittingId)?.socket;
  }

  /** Whether somebody shows their screen and so may store pictures of it while pens are down. */
  isPresenter(sittingId: string, actor: string): boolean {
    return this.shown.get(sittingId)?.presenter === actor;
  }

  /** Turns the class to another view, unless its teacher has turned away from the screen meanwhile. */
  private async turnFrom(
    sittingId: string,
    shown: Shown,
    page: string,
    panes: Shown['panes'],
  ): Promise<void> {
    const { pageId } = await this.sitting(sittingId);
    const looking = pageId === shown.page;
    Object.assign(shown, { page, panes });
    await this.tell(sittingId, looking ? page : undefined);
  }

  private of(sittingId: string, socket: string): Shown {
    const shown = this.shown.get(sittingId);
    if (shown?.socket !== socket)
      throw new Problem(409, 'not-shown', 'This screen is not shown any more. Please show it again.');
    return shown;
  }

  private async mayPresent(
    sittingId: string,
    { id, isTeacher }: { id: string; isTeacher: boolean },
  ): Promise<void> {
    const { endedAt } = await this.sitting(sittingId);
    if (endedAt !== null)
      throw new Problem(409, 'ended-screens', 'This class has ended, so nothing more can be shown.');
    if (isTeacher) return;
    if (!this.allowed.get(sittingId)?.has(id))
      throw new Problem(403, 'ask-to-show', 'Please ask your teacher to let you show your screen.');
    const shown = this.shown.get(sittingId);
    if (shown?.socket !== undefined && shown.presenter !== id)
      throw new Problem(
        409,
        'screen-busy',
        'Somebody else is showing their screen. Please wait until they stop.',
      );
  }

  /** Takes out the pages of views of which there is neither a picture nor a mark. */
  private async clearAway(sittingId: string): Promise<void> {
    const { pageId } = await this.sitting(sittingId);
    const marked = new Set(await this.logs.writtenPages(sittingId));
    const empty = [...(await this.logs.open(sittingId)).pages.values()].filter(
      ({ id, surface, removed }) =>
        !removed &&
        id !== pageId &&
        surface.kind === 'view' &&
        surface.pictures.length === 0 &&
        !marked.has(id),
    );
    if (empty.length === 0) return;
    const changes = empty.map(({ id }) => ({ do: 'patchPage', page: id, set: { removed: true } }) as const);
    await this.logs.append(sittingId, SERVER, { id: randomUUID(), changes });
  }

  private async tell(sittingId: string, page?: string): Promise<void> {
    const shown = this.shown.get(sittingId);
    this.classes.setScreen(sittingId, {
      screen: shown
        ? {
            presenter: shown.presenter,
            page: shown.page,
            panes: shown.panes,
            ...(shown.socket === undefined && { away: true as const }),
          }
        : null,
      presenters: [...(this.allowed.get(sittingId) ?? [])],
    });
    if (page === undefined) await this.classes.announce(sittingId);
    else await this.classes.turn(sittingId, page);
  }

  private async hasView(sittingId: string, page: string): Promise<boolean> {
    const known = (await this.logs.open(sittingId)).pages.get(page);
    return known?.surface.kind === 'view' && !known.removed;
  }

  /** Adds a page after the one that the class is on. */
  private async addView(sittingId: string, size: { width: number; height: number }): Promise<string> {
    const { pageId } = await this.sitting(sittingId);
    const pages = orderedPages((await this.logs.open(sittingId)).pages.values());
    if (pages.filter(({ surface }) => surface.kind === 'view').length >= MAX_VIEWS)
      throw new Problem(
        409,
        'too-many-screens',
        'This class has seen too many different screens. Please end it.',
      );
    const page: Page = {
      id: randomUUID(),
      order: ordersBeside((await this.logs.open(sittingId)).pages.values(), pageId)[0]!,
      title: 'Screen',
      width: SCREEN_PAGE_WIDTH,
      height: Math.round((SCREEN_PAGE_WIDTH * size.height) / size.width),
      surface: { kind: 'view', pictures: [] },
      removed: false,
    };
    await this.logs.append(sittingId, SERVER, { id: randomUUID(), changes: [{ do: 'addPage', page }] });
    return page.id;
  }

  private async sitting(id: string) {
    const sitting = await this.sittings.find(id);
    if (!sitting) throw notFound('This class');
    return sitting;
  }
}
