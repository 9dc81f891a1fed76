import type { Rect } from '@doodla/core';
import { afterRest } from '@web/ui/afterRest';
import { useEffect, useRef, useState } from 'react';
import { pictureOfTab } from '../pictures';
import type { Tab } from '../tab';

/** The page is pictured anew when nothing has moved for so long: browsers allow two pictures a second. */
const REST_MS = 600;

/** What lies under a round glass, enlarged. */
export function MagnifierView({ tab, box, zoom }: { tab: Tab; box: Rect; zoom: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const picture = usePicture(tab);
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx || !picture) return;
    const k = devicePixelRatio;
    const [width, height] = [box.width * k, box.height * k];
    Object.assign(ctx.canvas, { width, height });
    const from = picture.width / innerWidth;
    const [w, h] = [(box.width / zoom) * from, (box.height / zoom) * from];
    const [cx, cy] = [(box.x + box.width / 2) * from, (box.y + box.height / 2) * from];
    ctx.imageSmoothingQuality = 'high';
    ctx.drawImage(picture, cx - w / 2, cy - h / 2, w, h, 0, 0, width, height);
  }, [picture, box, zoom]);
  return <canvas ref={canvas} className="size-full" />;
}

/** A picture of the page as it was when it last rested. */
function usePicture(tab: Tab): ImageBitmap | undefined {
  const [picture, setPicture] = useState<ImageBitmap>();
  useEffect(() => {
    let isWanted = true;
    let wait: (() => void) | undefined;
    const take = async () => {
      const taken = await pictureOfTab(tab, true);
      if (isWanted && taken) setPicture(taken.bitmap);
    };
    const again = () => {
      wait?.();
      wait = afterRest(REST_MS, () => void take());
    };
    void take();
    const stop = tab.changes.subscribe(again);
    window.addEventListener('scroll', again, { passive: true, capture: true });
    return () => {
      isWanted = false;
      wait?.();
      stop();
      window.removeEventListener('scroll', again, { capture: true });
    };
  }, [tab]);
  return picture;
}
