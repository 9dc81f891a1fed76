/** Another process has a lesson in hand, with its classes. */
export class ElsewhereError extends Error {
  override name = 'ElsewhereError';
}

type Leaving = (lesson: string) => Promise<void>;
type Left = (lesson: string) => void;

/**
 * Who writes: a lesson, with all its classes, is in the hand of one process at a time. Logs are named by their ids, which are
 * those of lessons and classes.
 */
export abstract class Leases {
  private readonly leaving: Leaving[] = [];
  private readonly left: Left[] = [];
  private readonly uses: ((lesson: string) => boolean)[] = [];

  /** The fencing number of a log whose lesson this process has in hand, as far as it can know; undefined of others. */
  abstract fenceOf(log: string): number | undefined;

  /**
   * Takes the lesson of a log in hand. Returns its fencing number, which rises whenever it comes into another hand. Throws
   * ElsewhereError where another process has it.
   */
  abstract take(log: string): Promise<number>;

  /** Takes it in hand though another process has it, which is asked to hand it over. Throws ElsewhereError where it does not. */
  abstract takeOver(log: string): Promise<number>;

  /** Says of what lesson a log will be that is not there yet. */
  abstract expect(log: string, lesson: string): void;

  isHeld(log: string): boolean {
    return this.fenceOf(log) !== undefined;
  }

  /** Calls back with a lesson that is given out of hand once what is called back has settled, or is out of it already. */
  onLeaving(listener: Leaving): void {
    this.leaving.push(listener);
  }

  /** Calls back with a lesson that is out of hand: whoever is connected for it has to go where it is. */
  onLeft(listener: Left): void {
    this.left.push(listener);
  }

  /** Adds somebody who says which lessons are in use here, so that they stay in hand. */
  useWhile(isUsed: (lesson: string) => boolean): void {
    this.uses.push(isUsed);
  }

  /** Whether somebody is connected for a lesson here, or waits for something that is here alone. */
  isInUse(lesson: string): boolean {
    return this.uses.some((isUsed) => isUsed(lesson));
  }

  protected async tellLeaving(lesson: string): Promise<void> {
    for (const listener of this.leaving) await listener(lesson);
  }

  protected tellLeft(lesson: string): void {
    for (const listener of this.left) listener(lesson);
  }

  /** Of what lesson a log is, of those that are in hand. */
  abstract lessonOf(log: string): string;
}

/** Where there is one process: it has everything in hand. */
export class SoleLeases extends Leases {
  fenceOf(): number {
    return 0;
  }

  take(): Promise<number> {
    return Promise.resolve(0);
  }

  takeOver(): Promise<number> {
    return Promise.resolve(0);
  }

  expect(): void {
    // All lessons are this process's.
  }

  lessonOf(log: string): string {
    return log;
  }
}
