import { beforeEach, describe, expect, it } from 'vitest';
import { Reach } from '../src/reach/reachState';
import { freshStorage } from './helpers/fakeStorage';

beforeEach(freshStorage);

describe('the holder of the tools', () => {
  it('is where it was left, after a reload too', () => {
    const reach = new Reach();
    reach.swapSide();
    reach.toggleFold();
    expect(new Reach().get()).toMatchObject({ side: 'right', folded: true });
  });

  it('that is folded for now comes back as it was, even if the window is closed meanwhile', () => {
    const reach = new Reach();
    const done = reach.foldForNow();
    expect(reach.get().folded).toBe(true);
    expect(new Reach().get().folded).toBe(false);
    reach.toggleFold();
    reach.toggleFold();
    expect(new Reach().get().folded).toBe(false);
    done();
    expect(reach.get().folded).toBe(false);
    reach.toggleFold();
    expect(new Reach().get().folded).toBe(true);
  });
});
