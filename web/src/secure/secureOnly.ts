/**
 * What browsers offer only at https addresses and on localhost (W3C Secure Contexts). Everything here may be
 * missing, so everything here is asked for here, and nowhere else: a lint rule sees to it.
 */

/** All positions of a pointer since the last event; the event itself where the browser keeps no more. */
export function coalesced(event: PointerEvent): readonly PointerEvent[] {
  // Missing without a secure context (Pointer Events 3, §4.2).
  const events = typeof event.getCoalescedEvents === 'function' ? event.getCoalescedEvents() : [];
  return events.length > 0 ? events : [event];
}

export const canShowScreen = (): boolean => typeof navigator.mediaDevices?.getDisplayMedia === 'function';

/** Cameras and microphones; undefined where there are none to be had. */
export const mediaDevices = (): MediaDevices | undefined => navigator.mediaDevices;

export const canEncodeVideo = (): boolean => typeof VideoEncoder === 'function';
export const canDecodeVideo = (): boolean => typeof VideoDecoder === 'function';
export const canEncodeSound = (): boolean => typeof AudioEncoder === 'function';
export const canDecodeSound = (): boolean => typeof AudioDecoder === 'function';

/** Keeps the screen on; undefined where the browser does not let us. */
export async function lockScreenOn(): Promise<WakeLockSentinel | undefined> {
  // Refused on low battery, for instance; then the screen may go off.
  return 'wakeLock' in navigator ? navigator.wakeLock.request('screen').catch(() => undefined) : undefined;
}

/** Bytes that this browser lets us keep yet; Infinity where it does not tell. */
export async function spaceHere(): Promise<number> {
  const { quota, usage = 0 } = (await navigator.storage?.estimate()) ?? {};
  return quota === undefined ? Infinity : Math.max(0, quota - usage);
}
