import type { Mark } from '@doodla/core';
import { unpackMark } from '@doodla/core';
import type { GuestInk, Pictured, Tell, Told } from '../shared/messages';

/** The tab that is brought into a class. */
export class TabLink {
  constructor(readonly id: number) {}

  /** What the tab's page is; undefined where the companion does not lie over it. */
  async about(): Promise<Told['about'] | undefined> {
    // The tab is gone, or was loaded anew at a place where nobody has pressed the button.
    return this.ask<Told['about']>({ tell: 'about' }).catch(() => undefined);
  }

  copy(): Promise<string> {
    return this.ask<string>({ tell: 'copy' });
  }

  async marks(): Promise<Mark[]> {
    return (await this.ask<Told['marks']>({ tell: 'marks' })).map(unpackMark);
  }

  picture(of: 'sight' | 'page'): Promise<Pictured | undefined> {
    return this.ask<Pictured | undefined>({ tell: 'picture', of });
  }

  /** What is in sight of the tab without anything written on it; undefined where it is behind another one. */
  async plain(): Promise<Blob | undefined> {
    const data = await this.ask<Told['plain']>({ tell: 'plain' });
    // What is not answered comes as null.
    return data ? fileOf(data) : undefined;
  }

  /** Shows what is being drawn; resolves when the tab has drawn it. */
  showWet(ink: readonly GuestInk[]): Promise<unknown> {
    return this.ask({ tell: 'guest ink', ink });
  }

  /** Tells the tab something that is not answered; where it is gone, nobody hears it. */
  tell(message: Tell): void {
    chrome.tabs.sendMessage(this.id, message, { frameId: 0 }).catch(() => undefined);
  }

  private ask<Answer>(message: Tell): Promise<Answer> {
    return chrome.tabs.sendMessage<Tell, Answer>(this.id, message, { frameId: 0 });
  }
}

/** A data URL as the file that it is. */
export async function fileOf(data: string): Promise<Blob> {
  return (await fetch(data)).blob();
}
