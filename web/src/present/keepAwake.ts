import { lockScreenOn } from '../secure/secureOnly';

/** Keeps the screen from going to sleep until the result is called; where the browser cannot, nothing happens. */
export function keepAwake(): () => void {
  let lock: WakeLockSentinel | undefined;
  let stopped = false;
  const take = async () => {
    if (stopped || document.visibilityState !== 'visible') return;
    lock = await lockScreenOn();
    if (stopped) void lock?.release();
  };
  // The browser takes the lock away whenever the tab is hidden (W3C Screen Wake Lock §6).
  const again = () => void take();
  document.addEventListener('visibilitychange', again);
  again();
  return () => {
    stopped = true;
    document.removeEventListener('visibilitychange', again);
    void lock?.release();
  };
}
