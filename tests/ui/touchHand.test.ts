import { describe, expect, it } from 'vitest';
import { type Touch, TouchHand } from '../../src/ui/cloth/touchHand';

/** A hand whose clock the test moves on. */
function handOf() {
  const did: string[] = [];
  let work: (() => void) | null = null;
  const hand = new TouchHand(
    {
      begin: (held) => did.push(held ? 'hold' : 'begin'),
      extend: (x, y) => did.push(`to ${x},${y}`),
      end: () => did.push('end'),
      abort: () => did.push('abort'),
      pan: (dx, dy) => did.push(`pan ${dx},${dy}`),
    },
    (later) => {
      work = later;
      return 1;
    },
    () => {
      work = null;
    },
  );
  const finger = (x: number, y: number, more: Partial<Touch> = {}): Touch => ({
    id: 1,
    x,
    y,
    kind: 'touch',
    contact: 22,
    // Later by far than a hold takes, unless a test says otherwise.
    at: did.length * 1000,
    ...more,
  });
  return {
    hand,
    did,
    finger,
    rest: () => {
      const due = work;
      work = null;
      due?.();
    },
  };
}

describe('a page that is busy', () => {
  it('takes a swipe for a swipe, although it hears of it when the hold seems to be up', () => {
    const { hand, did, finger, rest } = handOf();
    hand.press(finger(100, 100, { at: 5000 }));
    rest();
    // The finger moved 40 ms after it came down.
    hand.move(finger(100, 70, { at: 5040 }));
    hand.move(finger(100, 40, { at: 5056 }));
    hand.release({ id: 1 });
    expect(did).toEqual(['hold', 'abort', 'pan 0,-30', 'pan 0,-30']);
  });

  it('still marks by a drag that began after the hold', () => {
    const { hand, did, finger, rest } = handOf();
    hand.press(finger(100, 100, { at: 5000 }));
    rest();
    hand.move(finger(100, 70, { at: 5400 }));
    hand.move(finger(100, 40, { at: 5416 }));
    hand.release({ id: 1 });
    expect(did).toEqual(['hold', 'to 100,70', 'to 100,40', 'end']);
  });
});

describe('a finger on the cloth', () => {
  it('marks one square by a calm tap, also when it wobbles by 14 pixels', () => {
    const { hand, did, finger } = handOf();
    hand.press(finger(100, 100));
    hand.move(finger(108, 109));
    hand.move(finger(100, 114));
    hand.release({ id: 1 });
    expect(did).toEqual(['begin', 'end']);
  });

  it('moves the cloth by a swipe, from where it came down, and marks nothing', () => {
    const { hand, did, finger, rest } = handOf();
    hand.press(finger(100, 100));
    hand.move(finger(100, 80));
    rest();
    hand.move(finger(100, 50));
    hand.release({ id: 1 });
    expect(did).toEqual(['pan 0,-20', 'pan 0,-30']);
  });

  it('marks by a drag after a short hold', () => {
    const { hand, did, finger, rest } = handOf();
    hand.press(finger(100, 100));
    rest();
    hand.move(finger(104, 100));
    hand.move(finger(140, 100));
    hand.move(finger(130, 100));
    hand.release({ id: 1 });
    expect(did).toEqual(['hold', 'to 140,100', 'to 130,100', 'end']);
  });

  it('takes back what it began when a second finger comes, whether it tapped, held or dragged', () => {
    for (const held of [false, true]) {
      const { hand, did, finger, rest } = handOf();
      hand.press(finger(100, 100));
      if (held) {
        rest();
        hand.move(finger(150, 100));
      }
      hand.press(finger(200, 200, { id: 2 }));
      hand.move(finger(90, 100));
      hand.release({ id: 1 });
      hand.move(finger(210, 200, { id: 2 }));
      hand.release({ id: 2 });
      expect(did).toEqual(held ? ['hold', 'to 150,100', 'abort'] : []);
      // And then all is as before.
      hand.press(finger(10, 10, { id: 3 }));
      hand.release({ id: 3 });
      expect(did.slice(-2)).toEqual(['begin', 'end']);
    }
  });

  it('is no mark when it is a palm, from the first or as it grows', () => {
    const { hand, did, finger, rest } = handOf();
    hand.press(finger(100, 100, { contact: 90 }));
    rest();
    hand.release({ id: 1 });
    hand.press(finger(100, 100, { id: 2 }));
    hand.move(finger(101, 100, { id: 2, contact: 75 }));
    rest();
    hand.release({ id: 2 });
    expect(did).toEqual([]);
  });

  it('leaves nothing when the browser takes it away', () => {
    const { hand, did, finger, rest } = handOf();
    hand.press(finger(100, 100));
    rest();
    hand.cancel({ id: 1 });
    expect(did).toEqual(['hold', 'abort']);
  });
});

describe('a mouse or pen on the cloth', () => {
  it('marks at once, and goes on with every movement', () => {
    const { hand, did, finger } = handOf();
    hand.press(finger(100, 100, { kind: 'mouse', contact: 1 }));
    hand.move(finger(103, 100, { kind: 'mouse', contact: 1 }));
    hand.release({ id: 1 });
    expect(did).toEqual(['begin', 'to 103,100', 'end']);
  });

  it('that rests asks for what lies there', () => {
    const { hand, did, finger, rest } = handOf();
    hand.press(finger(100, 100, { kind: 'pen', contact: 1 }));
    rest();
    hand.release({ id: 1 });
    expect(did).toEqual(['begin', 'abort', 'hold', 'end']);
  });

  it('gives up what is under way, and does nothing more until it is pressed again', () => {
    const { hand, did, finger } = handOf();
    expect(hand.giveUp()).toBe(false);
    hand.press(finger(100, 100, { kind: 'mouse', contact: 1 }));
    expect(hand.giveUp()).toBe(true);
    hand.move(finger(120, 100, { kind: 'mouse', contact: 1 }));
    hand.release({ id: 1 });
    expect(hand.giveUp()).toBe(false);
    expect(did).toEqual(['begin', 'abort']);
    hand.press(finger(100, 100, { kind: 'mouse', contact: 1 }));
    hand.release({ id: 1 });
    expect(did).toEqual(['begin', 'abort', 'begin', 'end']);
  });
});
