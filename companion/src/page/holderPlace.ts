import { HolderPlace } from './ui/holderState';

const KEY = 'holder';

/** Where the tools lie in this browser, kept by the extension. */
export async function openHolderPlace(): Promise<HolderPlace> {
  const { [KEY]: kept } = await chrome.storage.local.get<Record<string, object>>(KEY);
  const place = new HolderPlace(kept);
  // A place that could not be kept is only this once.
  place.state.subscribe(
    () => void chrome.storage.local.set({ [KEY]: place.state.get() }).catch(() => undefined),
  );
  return place;
}
