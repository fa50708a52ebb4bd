import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { overlapInWords } from '../../src/core/bench/overlap';
import { codeSigns } from '../../src/core/codes/codeSigns';
import { readScanned } from '../../src/core/codes/scanned';
import {
  faultInPassphrase,
  freeName,
  otherScreensInWords,
  suggestedName,
} from '../../src/core/devices/device';
import { Guesses } from '../../src/core/devices/guesses';
import { inUrl, localName } from '../../src/core/devices/homeAddresses';
import { drawCode, readCode } from '../../src/core/devices/joinCode';
import { colourAddress } from '../../src/core/labels/qr';
import { line } from './samples';

describe('the code by which a device joins', () => {
  const drawn = (bytes: number[]) => {
    const rest = [...bytes];
    return drawCode((n) => Uint8Array.from({ length: n }, () => rest.shift() ?? 0));
  };

  it('has eight signs that are not taken for one another, each as likely as any', () => {
    expect(drawn([0, 1, 7, 8, 30, 31, 247, 246])).toBe('239A-Z2ZY');
    // 248 and more would make the first signs likelier, so they are drawn again.
    expect(drawn([248, 255, 0, 0, 0, 0, 0, 0, 30, 30])).toBe('2222-22ZZ');
    const all = new Set(Array.from({ length: 31 }, (_, i) => drawn(Array(8).fill(i))[0]));
    expect(all.size).toBe(31);
    expect([...'0O1IL'].filter((sign) => all.has(sign))).toEqual([]);
  });

  it('is read however it is typed, and nothing else is', () => {
    for (const typed of ['k7qm4rtx', ' K7QM-4RTX ', 'k7qm 4rtx', 'K7-QM–4R TX']) {
      expect(readCode(typed)).toBe('K7QM-4RTX');
    }
    for (const typed of ['', 'K7QM-4RT', 'K7QM-4RTXX', 'K7QM-4RT0', 'K7QM-4RTİ', '★7QM-4RTX']) {
      expect(readCode(typed)).toBeNull();
    }
  });
});

describe('who guesses', () => {
  it('waits twice as long after each wrong try beyond a few, others do not', () => {
    const guesses = new Guesses();
    for (let i = 0; i < 4; i++) {
      expect(guesses.waitMs('a', 0)).toBe(0);
      guesses.wrong('a', 0);
    }
    expect(guesses.waitMs('a', 0)).toBe(1000);
    expect(guesses.waitMs('a', 1000)).toBe(0);
    guesses.wrong('a', 1000);
    expect(guesses.waitMs('a', 1000)).toBe(2000);
    for (let i = 0; i < 12; i++) guesses.wrong('a', 1000);
    expect(guesses.waitMs('a', 1000)).toBe(15 * 60_000);
    expect(guesses.waitMs('b', 1000)).toBe(0);
    guesses.right('a');
    expect(guesses.waitMs('a', 1000)).toBe(0);
  });

  it('from many addresses is slowed in all, is told, and forgotten after an hour', () => {
    const guesses = new Guesses();
    for (let i = 0; i < 25; i++) guesses.wrong(`10.0.0.${i}`, i);
    expect(guesses.waitMs('10.0.1.1', 25)).toBeGreaterThan(20_000);
    expect(guesses.waitMs('10.0.1.1', 25)).toBeLessThanOrEqual(60_000);
    expect(guesses.told(25)[0]).toEqual({ address: '10.0.0.24', wrong: 1, last: 24 });
    expect(guesses.told(3_600_100)).toEqual([]);
    expect(guesses.waitMs('10.0.1.1', 3_600_100)).toBe(0);
  });

  it('takes no more memory however many addresses are invented', () => {
    const guesses = new Guesses();
    for (let i = 0; i < 2000; i++) guesses.wrong(`fd00::${i}`, i);
    expect(guesses.told(2000)).toHaveLength(500);
  });

  it('never waits longer than a quarter of an hour', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(3), fc.nat(100_000)), { maxLength: 60 }), (tries) => {
        const guesses = new Guesses();
        let now = 0;
        for (const [who, after] of tries) {
          now += after;
          guesses.wrong(String(who), now);
          const wait = guesses.waitMs(String(who), now);
          expect(wait).toBeGreaterThanOrEqual(0);
          expect(wait).toBeLessThanOrEqual(15 * 60_000);
        }
      }),
    );
  });
});

describe('names', () => {
  it('of a machine in the home are one label under .local (RFC 6762)', () => {
    expect(localName('Attic.example.org')).toBe('attic.local');
    expect(localName('Köln PC_2')).toBe('k-ln-pc-2.local');
    expect(localName('★')).toBe('oculent.local');
    expect(localName('x'.repeat(80))).toHaveLength(63 + '.local'.length);
  });

  it('of addresses stand in web addresses as they must (RFC 3986)', () => {
    expect(inUrl('192.168.1.20')).toBe('192.168.1.20');
    expect(inUrl('fd00::20')).toBe('[fd00::20]');
  });

  it('are suggested by what a device is, each once', () => {
    const phone = 'Mozilla/5.0 (Linux; Android 14; K) AppleWebKit/537.36 Mobile Safari/537.36';
    expect(suggestedName(phone)).toBe('Phone');
    expect(freeName(suggestedName(phone), ['phone', 'Phone 2'])).toBe('Phone 3');
    expect(suggestedName('Mozilla/5.0 (Linux; Android 14; K) Safari/537.36')).toBe('Tablet');
    expect(suggestedName('Mozilla/5.0 (X11; Linux x86_64)')).toBe('Computer');
  });

  it('of other screens make a sentence', () => {
    expect(otherScreensInWords(['Tablet'])).toBe('“Tablet”');
    expect(otherScreensInWords(['Desk', 'Phone', 'Tablet'])).toBe('“Desk”, “Phone” and “Tablet”');
  });
});

it('a passphrase has twelve characters or more, counted as people see them', () => {
  expect(faultInPassphrase('elevenchars')).toContain('12 characters or more');
  expect(faultInPassphrase('twelve chars')).toBeNull();
  // An e with a combining accent is one character.
  expect(faultInPassphrase('e\u0301'.repeat(11))).not.toBeNull();
});

describe('what a camera reads', () => {
  const id = '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f02';
  const legend = [
    line(1, { code: '412', keyNumber: '12' }),
    line(7, { code: 'SH98', keyNumber: '98' }),
    line(9, { code: '98', keyNumber: '3' }),
  ];
  const read = (text: string) => readScanned(text, id, legend, null);

  it('off a label of this canvas is its colour, whatever the address it was printed with', () => {
    const label = colourAddress('https://192.168.1.20:4471', id, 7);
    expect(read(label)).toMatchObject({ kind: 'colour', line: { line: 7 }, label: true });
    expect(read(label.toLowerCase())).toMatchObject({ kind: 'colour', label: true });
    expect(read(colourAddress('http://127.0.0.1', id.replace('4f02', '4f03'), 7))).toEqual({
      kind: 'other canvas',
    });
    // A colour that was deleted since.
    expect(read(colourAddress('http://127.0.0.1', id, 5))).toMatchObject({ kind: 'unknown' });
  });

  it('off a bag is the code that it carries, and never guessed', () => {
    expect(read(' 412 ')).toMatchObject({ kind: 'colour', line: { line: 1 }, label: false });
    expect(read('98')).toMatchObject({ kind: 'several' });
    expect(read('4006381333931')).toEqual({ kind: 'unknown', text: '4006381333931' });
    expect(read('x'.repeat(500))).toEqual({ kind: 'unknown', text: 'x'.repeat(40) });
  });

  it('needs keys for the letters of this kit’s codes only', () => {
    expect(codeSigns(legend)).toEqual(['H', 'S']);
    expect(codeSigns([{ code: '12' }, { code: 'b-7' }])).toEqual(['-', 'B']);
    expect(codeSigns([...'ABCDEFGHI'].map((code) => ({ code })))).toEqual([]);
  });
});

it('drills that two screens marked alike are told in one sentence', () => {
  expect(overlapInWords(1)).toContain(
    '1 drill that you marked here while Oculent was away was marked the same way',
  );
  expect(overlapInWords(1200)).toContain('1,200 drills that you marked here');
});
