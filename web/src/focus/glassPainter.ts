import type { Magnifier, Page } from '@doodla/core';
import type { Stage } from '../stage/stage';
import type { SurfaceView } from '../canvas/surface';
import type { WebFrame } from '../stage/webFrame';
import type { PageDesk } from '../room/pageDesk';

/** Draws what a magnifier shows, at its own scale; of web pages it keeps an enlarged frame below. */
export class GlassPainter {
  private readonly canvas = document.createElement('canvas');
  private readonly stops: (() => void)[];
  private focus: Magnifier | undefined;
  private surface: { page: Page; view: SurfaceView } | undefined;
  private web: WebFrame | undefined;
  private frame = 0;

  constructor(
    private readonly host: HTMLElement,
    private readonly desk: PageDesk,
    private readonly stage: Stage,
  ) {
    this.canvas.style.cssText = 'position:absolute;inset:0;width:100%;height:100%;';
    host.append(this.canvas);
    const again = () => this.schedule();
    this.stops = [
      desk.marksChanged.subscribe(again),
      desk.pictures.arrived.subscribe(again),
      desk.screen.frames.subscribe(again),
    ];
  }

  show(focus: Magnifier): void {
    this.focus = focus;
    this.schedule();
  }

  destroy(): void {
    cancelAnimationFrame(this.frame);
    for (const stop of this.stops) stop();
    this.web?.destroy();
    this.surface?.view.release?.();
    this.canvas.remove();
  }

  private schedule(): void {
    this.frame ||= requestAnimationFrame(() => {
      this.frame = 0;
      this.draw();
    });
  }

  private draw(): void {
    const { focus, host, canvas, stage } = this;
    const { page } = this.desk;
    if (!focus || !page) return;
    const ratio = window.devicePixelRatio;
    const [width, height] = [host.clientWidth, host.clientHeight];
    const size = { width: Math.round(width * ratio), height: Math.round(height * ratio) };
    if (canvas.width !== size.width || canvas.height !== size.height) Object.assign(canvas, size);
    const scale = stage.view.get().scale * focus.factor;
    const rect = {
      x: focus.x + focus.width / 2 - width / 2 / scale,
      y: focus.y + focus.height / 2 - height / 2 / scale,
      width: width / scale,
      height: height / scale,
    };
    const surface = this.surfaceOf(page);
    surface.request(scale * ratio, rect);
    const ctx = canvas.getContext('2d')!;
    ctx.resetTransform();
    ctx.clearRect(0, 0, canvas.width, canvas.height);
    ctx.setTransform(scale * ratio, 0, 0, scale * ratio, -rect.x * scale * ratio, -rect.y * scale * ratio);
    stage.paintInto(ctx, rect, surface);
    if (page.surface.kind === 'web')
      void this.showWeb(page, { scale, x: -rect.x * scale, y: -rect.y * scale });
  }

  private surfaceOf(page: Page): SurfaceView {
    if (this.surface?.page !== page) {
      this.surface?.view.release?.();
      this.surface = { page, view: this.desk.surfaces.closer(page, () => this.schedule()) };
    }
    return this.surface.view;
  }

  private async showWeb(page: Page, view: { scale: number; x: number; y: number }): Promise<void> {
    const { WebFrame: Frame } = await import('../stage/webFrame');
    this.web ??= new Frame(this.host, this.desk, () => undefined);
    this.web.show(page);
    this.web.setView(view);
  }
}
