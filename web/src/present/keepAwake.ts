/** Keeps the screen from going to sleep until the result is called; where the browser cannot, nothing happens. */
export function keepAwake(): () => void {
  let lock: WakeLockSentinel | undefined;
  let stopped = false;
  const take = async () => {
    if (stopped || document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
    lock = await navigator.wakeLock.request('screen').catch(() => undefined);
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
