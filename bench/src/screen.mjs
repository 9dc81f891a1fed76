// Screens that are followed, remembered and relayed, and web pages that are opened; the figures of
// the follower are compared with drawing the same frame's pixels once in plain JavaScript.
import { withBrowser } from './harness.mjs';
import { report } from './report.mjs';
import { followScrolls, rememberViews } from './screenFollow.mjs';
import { openWebPage } from './screenWeb.mjs';
import { relay } from './screenRelay.mjs';
import { touchPixels } from './touchPixels.mjs';

const HD = { width: 1280, height: 720 };
const FULL_HD = { width: 1920, height: 1080 };

await withBrowser(async (context, browser) => {
  const follow = await followScrolls(browser, { size: HD, stepsPerKind: 40 });
  const large = await followScrolls(browser, {
    size: FULL_HD,
    stepsPerKind: 12,
    kinds: ['text', 'header', 'dark'],
  });
  const views = await rememberViews(browser, { size: HD, views: 210 });
  const shown = await relay(context, browser);
  const web = await openWebPage(context);
  const bare = touchPixels(HD);
  report('screen', {
    followMedianMs: { value: +follow.medianMs.toFixed(1), limit: 8 },
    followRatio: { value: +(follow.medianMs / bare).toFixed(1) },
    follow1080MedianMs: { value: +large.medianMs.toFixed(1), limit: 33 },
    steps: { value: follow.steps + large.steps },
    missedShare: {
      value: +(1 - (follow.right + large.right) / (follow.steps + large.steps)).toFixed(4),
      limit: 0.02,
    },
    unsure: { value: follow.unsure + large.unsure },
    undetectedErrors: { value: follow.wrong + large.wrong, limit: 0 },
    views: { value: views.views },
    notFoundShare: { value: +(1 - views.foundShare).toFixed(4), limit: 0.01 },
    wronglyMatchedShare: { value: +views.wrongShare.toFixed(5), limit: 0.001 },
    viewMedianMs: { value: +views.medianMs.toFixed(1), limit: 5 },
    delay95Ms: { value: Math.round(shown.delay95Ms), limit: 250 },
    stillKBs: { value: +shown.stillKBs.toFixed(1), limit: 60 },
    scrollKBs: { value: +shown.scrollKBs.toFixed(1), limit: 400 },
    blurredShare: { value: +(1 - shown.settledSsim).toFixed(4), limit: 0.02 },
    webOpenMs: { value: Math.round(web.ours) },
    webBareMs: { value: Math.round(web.bare) },
    webOpenRatio: { value: +(web.ours / web.bare).toFixed(2), limit: 2 },
  });
});
