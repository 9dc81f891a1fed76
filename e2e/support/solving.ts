import type { Page } from '@playwright/test';
import { expect } from './fixtures';
import type { StageState } from './stage';
import { at, draw, stageState } from './stage';

type Seen = StageState['marks'][number];
type Ruled = Seen & { rule: NonNullable<Seen['rule']> };

/** What is right on a page that answers, as its rules say: read once, before anything is answered. */
export interface Sheet {
  things: readonly { thing: Ruled; right: Ruled; wrong: Ruled | undefined }[];
  choices: readonly { right: Ruled; wrong: Ruled }[];
  pairs: readonly (readonly [Ruled, Ruled])[];
  fields: readonly Ruled[];
  lines: readonly (readonly [[number, number], [number, number]])[];
}

export async function sheetOf(page: Page): Promise<Sheet> {
  const { marks } = await stageState(page);
  const ruled = marks.filter((mark): mark is Ruled => !!mark.rule);
  const places = ruled.filter(({ rule }) => rule.takes);
  const takes = (place: Ruled, { id }: Seen) => place.rule.takes!.things.includes(id);
  const things = ruled.flatMap((thing) => {
    const right = places.filter((place) => takes(place, thing));
    const wrong = places.find((place) => !takes(place, thing));
    return thing.rule.moves && right.length > 0 ? [{ thing, right, wrong }] : [];
  });
  // A place takes one thing, where there are as many; else all that belong there.
  const used = new Set<Ruled>();
  const put = things.map(({ thing, right, wrong }) => {
    const own = right.find((place) => !used.has(place)) ?? right[0]!;
    used.add(own);
    return { thing, right: own, wrong };
  });
  const questions = new Map<string, Ruled[]>();
  for (const mark of ruled.filter(({ rule }) => rule.tap?.is)) {
    const of = mark.rule.of?.[0] ?? mark.id;
    questions.set(of, [...(questions.get(of) ?? []), mark]);
  }
  const covers = ruled.filter(({ rule }) => rule.pair);
  return {
    things: put,
    choices: [...questions.values()].map((answers) => ({
      right: answers.find(({ rule }) => rule.tap!.is === 'right')!,
      wrong: answers.find(({ rule }) => rule.tap!.is === 'wrong')!,
    })),
    pairs: covers.flatMap((one) => {
      const other = covers.find(({ id }) => id === one.rule.pair!.with)!;
      return one.id < other.id ? [[one, other] as const] : [];
    }),
    fields: ruled.filter(({ rule }) => rule.fill),
    lines: ruled
      .flatMap(({ rule }) => rule.trace?.lines ?? [])
      .map(({ from, to }) => [[...from] as [number, number], [...to] as [number, number]] as const),
  };
}

const middleOf = ({ bounds: { x, y, width, height } }: Seen): [number, number] => [
  x + width / 2,
  y + height / 2,
];

/** A student who answers with a hand. */
export class Solver {
  constructor(
    readonly page: Page,
    private readonly sheet: Sheet,
  ) {}

  /** Answers all, but for so many of the last; first once wrongly, if it is to be so. */
  async solve({ isWrongFirst = false, open = 0 } = {}): Promise<void> {
    const { things, choices, pairs, fields, lines } = this.sheet;
    const most = <T>(all: readonly T[]) => all.slice(0, all.length - (all.length > 0 ? open : 0));
    if (isWrongFirst) await this.mistake();
    for (const { thing, right } of most(things)) await this.carry(thing, right);
    for (const { right } of most(choices)) await this.tap(right);
    // A card that lies open after a mistake goes back when another is tapped.
    for (const [one, other] of most(pairs)) await this.uncover([other, one]);
    for (const line of most(lines)) await draw(this.page, [...line]);
    // Of a word of many letters one that is missing leaves it open.
    for (const field of most(fields)) await this.fill(field, rightOf(field));
  }

  private async mistake(): Promise<void> {
    const { things, choices, pairs, fields, lines } = this.sheet;
    const [thing] = things;
    if (thing?.wrong) await this.carry(thing.thing, thing.wrong);
    if (choices[0]) await this.tap(choices[0].wrong);
    if (pairs.length > 1) await this.uncover([pairs[0]![0], pairs[1]![1]]);
    // From where one word begins to where another ends there is none.
    const [one, other] = lines;
    if (one && other) await draw(this.page, [one[0], other[1]]);
    const field = fields.find(({ rule }) => (rule.of ?? []).length < 2);
    if (field) await this.fill(field, 'x');
  }

  async tap(mark: Seen): Promise<void> {
    const now = await this.find(mark);
    await draw(this.page, [middleOf(now)]);
    await this.settled();
  }

  async carry(thing: Seen, to: Seen): Promise<void> {
    await this.carryTo(thing, middleOf(to));
  }

  async carryTo(thing: Seen, [x, y]: [number, number]): Promise<void> {
    const [fromX, fromY] = middleOf(await this.find(thing));
    await draw(this.page, [
      [fromX, fromY],
      [(fromX + x) / 2, (fromY + y) / 2],
      [x, y],
    ]);
    await this.settled();
  }

  private async uncover(pair: readonly [Seen, Seen]): Promise<void> {
    for (const cover of pair) {
      await this.page.mouse.click(...(await at(this.page, ...middleOf(cover))));
      await this.settled();
    }
  }

  private async fill({ id }: Seen, words: string): Promise<void> {
    const field = this.page.locator(`[id="fill-${id}"]`);
    await field.fill(words);
    await field.blur();
    await this.settled();
  }

  /** A mark, or what stands for it by now. */
  private async find(mark: Seen): Promise<Seen> {
    const { marks } = await stageState(this.page);
    return marks.find(({ standIn }) => standIn?.for === mark.id && !standIn.copy) ?? mark;
  }

  /** The server has all that was answered. */
  private async settled(): Promise<void> {
    await expect.poll(async () => (await stageState(this.page)).waiting).toBe(0);
  }
}

function rightOf({ rule }: Ruled): string {
  const fill = rule.fill!;
  return fill.as === 'words' ? fill.answers[0]! : `${fill.value} ${fill.unit}`.trim();
}
