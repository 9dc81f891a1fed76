import type { ScreenSource } from './sources';

const SIZE = { width: 1280, height: 720 };
const FRAME_MS = 80;
/** Height of the bar above the article, pixels. */
const HEAD = 52;

/** What the practice screen shows; it is worked by buttons, tests and the keys of its bar. */
export type SimulatedView = 'article' | 'slides';

const SENTENCES = [
  'A footbridge at the mill carried people over the river for ninety years.',
  'Its deck lay on two stone piers, and each pier stood on gravel.',
  'In the wet spring the water rose above the lower rail.',
  'Planks that had been dry for years began to swell and push against each other.',
  'Someone noticed that the handrail was no longer straight.',
  'The carpenters measured the bend with a string and a rule.',
  'They found that one beam carried almost twice its share of the load.',
  'A truss of short timbers spread the weight from one pier to the other.',
  'The bridge was tested with barrels of water, one after the other.',
  'After the ninth barrel the deck had moved by less than the width of a thumb.',
];
const SLIDES = ['Beams bend', 'Arches push', 'Trusses share', 'Cables pull'];

/** A screen that is drawn here, for trying out and for tests: an article that scrolls, slides, a video, a clock. */
export class SimulatedScreen implements ScreenSource {
  readonly kind = 'simulated';
  readonly picture = document.createElement('canvas');
  onEnded: () => void = () => undefined;
  /** How far the article is scrolled, pixels. */
  scroll = 0;
  view: SimulatedView = 'article';
  slide = 0;
  playing = false;
  private readonly article = drawArticle();
  private readonly audio = new AudioContext();
  /** The film hums while it plays. */
  private readonly hum = new GainNode(this.audio, { gain: 0 });
  readonly sound: MediaStreamTrack | undefined;
  private readonly timer: ReturnType<typeof setInterval>;
  private film = 0;

  constructor() {
    Object.assign(this.picture, SIZE);
    const tone = new OscillatorNode(this.audio, { frequency: 220, type: 'triangle' });
    const out = this.audio.createMediaStreamDestination();
    tone.connect(this.hum).connect(out);
    tone.start();
    this.sound = out.stream.getAudioTracks()[0];
    this.draw();
    this.timer = setInterval(() => this.draw(), FRAME_MS);
  }

  size(): { width: number; height: number } {
    return SIZE;
  }

  stop(): void {
    clearInterval(this.timer);
    void this.audio.close();
  }

  togglePlaying(): void {
    this.playing = !this.playing;
    this.hum.gain.value = this.playing ? 0.1 : 0;
  }

  scrollBy(by: number): void {
    const most = this.article.height - SIZE.height;
    this.scroll = Math.min(most, Math.max(0, this.scroll + by));
    this.draw();
  }

  show(view: SimulatedView, slide = this.slide): void {
    this.view = view;
    this.slide = (slide + SLIDES.length) % SLIDES.length;
    this.draw();
  }

  private draw(): void {
    const ctx = this.picture.getContext('2d')!;
    if (this.view === 'article') {
      ctx.drawImage(this.article, 0, -this.scroll);
      if (this.playing) this.drawFilm(ctx);
      this.drawHead(ctx);
    } else this.drawSlide(ctx);
    this.drawClock(ctx);
  }

  /** What stays where it is while the article is scrolled. */
  private drawHead(ctx: CanvasRenderingContext2D): void {
    ctx.fillStyle = '#e6ede7';
    ctx.fillRect(0, 0, SIZE.width, HEAD);
    ctx.fillStyle = '#12352a';
    ctx.font = '24px Andika, sans-serif';
    ctx.fillText('The mill bridge     Contents     Pictures     Sources', 80, 36);
  }

  private drawSlide(ctx: CanvasRenderingContext2D): void {
    ctx.fillStyle = '#fdfaf0';
    ctx.fillRect(0, 0, SIZE.width, SIZE.height);
    ctx.fillStyle = '#1c241f';
    ctx.font = 'bold 64px Andika, sans-serif';
    ctx.fillText(`${this.slide + 1}  ${SLIDES[this.slide]!}`, 80, 140);
    ctx.font = '30px Andika, sans-serif';
    for (let i = 0; i < 4; i++)
      ctx.fillText(SENTENCES[(this.slide * 3 + i * 2) % SENTENCES.length]!, 80, 260 + i * 64);
    ctx.fillStyle = ['#0072b2', '#d55e00', '#009e73', '#cc79a7'][this.slide]!;
    for (let i = 0; i <= this.slide; i++) ctx.fillRect(80 + i * 130, 540, 100, 90 - i * 12);
  }

  private drawFilm(ctx: CanvasRenderingContext2D): void {
    this.film += 1;
    const top = 760 - this.scroll;
    for (let i = 0; i < 120; i++) {
      ctx.fillStyle = `hsl(${(this.film * 23 + i * 47) % 360} 60% 50%)`;
      ctx.fillRect(700 + ((i * 89 + this.film * 13) % 420), top + ((i * 53 + this.film * 29) % 220), 60, 30);
    }
  }

  private drawClock(ctx: CanvasRenderingContext2D): void {
    ctx.fillStyle = '#12352a';
    ctx.fillRect(SIZE.width - 110, SIZE.height - 34, 110, 34);
    ctx.fillStyle = '#faf5e8';
    ctx.font = '20px monospace';
    ctx.fillText(new Date().toTimeString().slice(0, 8), SIZE.width - 104, SIZE.height - 11);
  }
}

/** No two are the same, as in any real article. */
function sentence(n: number): string {
  const first = SENTENCES[n % SENTENCES.length]!.slice(0, -1);
  const second = SENTENCES[(n * 3 + Math.floor(n / SENTENCES.length) + 1) % SENTENCES.length]!;
  return `${first}, and ${second.charAt(0).toLowerCase()}${second.slice(1)}`.slice(0, 95);
}

/** About four screens of text with headings and pictures. */
function drawArticle(): HTMLCanvasElement {
  const sheet = document.createElement('canvas');
  sheet.width = SIZE.width;
  sheet.height = 3000;
  const ctx = sheet.getContext('2d')!;
  ctx.fillStyle = '#ffffff';
  ctx.fillRect(0, 0, sheet.width, sheet.height);
  ctx.fillStyle = '#1c241f';
  let y = 90;
  for (let part = 1; y < sheet.height - 80; part++) {
    ctx.font = 'bold 40px Andika, sans-serif';
    ctx.fillText(
      `${part}. ${['The flood', 'The string', 'The barrels', 'The truss', 'The rail'][part % 5]!}`,
      80,
      y,
    );
    y += 60;
    ctx.font = '25px Andika, sans-serif';
    for (let line = 0; line < 7; line++, y += 42) ctx.fillText(sentence(part * 7 + line), 80, y);
    ctx.fillStyle = ['#56b4e9', '#e69f00', '#009e73'][part % 3]!;
    ctx.fillRect(80, y, 160 + part * 40, 60);
    ctx.fillStyle = '#1c241f';
    y += 130;
  }
  return sheet;
}
