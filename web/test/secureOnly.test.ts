import { afterEach, describe, expect, it, vi } from 'vitest';
import { canCopyPictures, copyPng, copyText } from '../src/secure/clipboard';
import {
  canDecodeVideo,
  canShowScreen,
  coalesced,
  lockScreenOn,
  mediaDevices,
} from '../src/secure/secureOnly';

// Which of these are missing outside a secure context: W3C Secure Contexts, WebCodecs §6, Screen Wake Lock §7,
// Async Clipboard API §4, Pointer Events 3 §4.2.

afterEach(() => vi.unstubAllGlobals());

/** A page as a browser shows it over plain HTTP: what needs more is not there. */
function plainHttp(execCommand: () => boolean): { copied: string[] } {
  const copied: string[] = [];
  const field = {
    style: {},
    value: '',
    select: () => copied.push(field.value),
    remove: () => undefined,
  };
  vi.stubGlobal('window', { isSecureContext: false });
  vi.stubGlobal('navigator', {});
  vi.stubGlobal('HTMLElement', class {});
  vi.stubGlobal('document', {
    createElement: () => field,
    querySelector: () => null,
    body: { append: () => undefined },
    activeElement: null,
    execCommand,
  });
  return { copied };
}

describe('without a secure context', () => {
  const event = (more: object = {}) => ({ clientX: 1, ...more }) as unknown as PointerEvent;

  it('a move is the one position that the event has', () => {
    const move = event();
    expect(coalesced(move)).toEqual([move]);
    expect(coalesced(event({ getCoalescedEvents: () => [] }))).toHaveLength(1);
  });

  it('and with one, all positions since the last', () => {
    const all = [event(), event(), event()];
    expect(coalesced(event({ getCoalescedEvents: () => all }))).toBe(all);
  });

  it('text is copied by way of a field, and it is said where even that is not to be had', async () => {
    const page = plainHttp(() => true);
    await copyText('FGH J34');
    expect(page.copied).toEqual(['FGH J34']);
    plainHttp(() => false);
    await expect(copyText('FGH J34')).rejects.toThrow('Select the text and copy it by hand.');
  });

  it('pictures cannot be copied, and it is said what to do instead', async () => {
    plainHttp(() => true);
    expect(canCopyPictures()).toBe(false);
    await expect(copyPng(new Blob([]))).rejects.toThrow('Save it as a file instead.');
  });

  it('screens, cameras, decoders and keeping awake are missed without a fuss', async () => {
    plainHttp(() => true);
    expect(canShowScreen()).toBe(false);
    expect(mediaDevices()).toBeUndefined();
    expect(canDecodeVideo()).toBe(false);
    expect(await lockScreenOn()).toBeUndefined();
  });
});

describe('with a secure context', () => {
  it('the clipboard is used, and the old way where it refuses', async () => {
    const page = plainHttp(() => true);
    const writeText = vi.fn().mockResolvedValue(undefined);
    vi.stubGlobal('window', { isSecureContext: true });
    vi.stubGlobal('navigator', { clipboard: { writeText } });
    await copyText('one');
    expect(page.copied).toEqual([]);
    writeText.mockRejectedValue(new DOMException('The window is not in front.', 'NotAllowedError'));
    await copyText('two');
    expect(page.copied).toEqual(['two']);
  });

  it('a screen that may not be kept on goes off, and nothing breaks', async () => {
    const request = vi.fn().mockRejectedValue(new DOMException('The battery is low.', 'NotAllowedError'));
    vi.stubGlobal('navigator', { wakeLock: { request } });
    expect(await lockScreenOn()).toBeUndefined();
  });
});
