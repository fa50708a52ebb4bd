import { describe, expect, it } from 'vitest';
import { StandInStreams, toldMark } from './liveWorld';

describe('the stream that all tabs of a browser share', () => {
  it('is one, follows what any tab has open, and tells every tab', () => {
    const browser = new StandInStreams();
    const [first, second] = [browser.tab(), browser.tab()];
    first.feed.follow('a');
    browser.wait();
    second.feed.follow('b');
    browser.wait();
    expect(browser.opened).toEqual(['/api/events?canvas=a', '/api/events?canvas=a&canvas=b']);
    browser.say('mark', { canvas: 'b', stamp: '1-7', ...toldMark(0, 7, 'lay', [0, 1]) });
    for (const { told } of [first, second]) expect(told).toMatchObject([{ kind: 'mark', canvas: 'b' }]);
    // Following what is followed already opens nothing.
    second.feed.follow('a');
    browser.wait();
    expect(browser.opened).toHaveLength(2);
  });

  it('comes back after a break from where it was, and says what of the shelf may have been missed', () => {
    const browser = new StandInStreams();
    const { feed, told } = browser.tab();
    feed.follow('a');
    browser.wait();
    browser.say('here', {});
    // Between the making of the page and this moment too.
    expect(told).toEqual([{ kind: 'missed', canvas: null }]);
    browser.say('here', { canvas: 'a', stamp: '2-5' });
    browser.say('mark', { canvas: 'a', stamp: '2-6', ...toldMark(5, 6, 'lay', [0, 1]) });
    browser.break();
    browser.wait();
    expect(browser.opened.at(-1)).toBe('/api/events?canvas=a~2-6');
    browser.say('here', {});
    expect(told.at(-1)).toEqual({ kind: 'missed', canvas: null });
    browser.say('too-much', { canvas: 'a' });
    expect(told.at(-1)).toEqual({ kind: 'missed', canvas: 'a' });
    // What is gone is not asked for again.
    browser.say('gone', { canvas: 'a' });
    expect(told.at(-1)).toEqual({ kind: 'gone', canvas: 'a' });
    browser.break();
    browser.wait();
    expect(browser.opened.at(-1)).toBe('/api/events');
  });

  it('passes to another tab when its own is closed, which follows what the others have open', () => {
    const browser = new StandInStreams();
    const [first, second, third] = [browser.tab(), browser.tab(), browser.tab()];
    first.feed.follow('a');
    second.feed.follow('b');
    third.feed.follow('c');
    browser.wait();
    first.close();
    browser.wait();
    const last = new URLSearchParams(browser.opened.at(-1)!.split('?')[1]).getAll('canvas');
    expect(last.toSorted()).toEqual(['b', 'c']);
    browser.say('changed', { canvas: 'c', stamp: '3-0', parts: ['bags'], by: null });
    expect(third.told.at(-1)).toEqual({ kind: 'changed', canvas: 'c', parts: ['bags'], by: null });
    expect(first.told).toEqual([]);
  });

  it('begins where the page was made, and says what another tab was told before that', () => {
    const browser = new StandInStreams();
    browser.made.set('a', '3-7');
    const first = browser.tab();
    first.feed.follow('a');
    browser.wait();
    expect(browser.opened).toEqual(['/api/events?canvas=a~3-7']);
    browser.say('changed', { canvas: 'a', stamp: '5-9', parts: ['bags'], by: null });
    // Made between the two, so that it shows one change and not the other.
    browser.made.set('a', '4-9');
    const second = browser.tab();
    second.feed.follow('a');
    browser.wait();
    expect(second.told).toEqual([{ kind: 'changed', canvas: 'a', parts: ['other'], by: null }]);
    browser.made.set('a', '5-8');
    const third = browser.tab();
    third.feed.follow('a');
    browser.wait();
    expect(third.told).toEqual([]);
    expect(browser.opened).toHaveLength(1);
  });

  it('tells a new tab who else is there', () => {
    const browser = new StandInStreams();
    const first = browser.tab();
    first.feed.follow('a');
    browser.wait();
    browser.say('present', { canvas: 'a', devices: ['Tablet'] });
    const second = browser.tab();
    second.feed.follow('a');
    browser.wait();
    expect(second.feed.devicesOn('a')).toEqual(['Tablet']);
    expect(browser.opened).toHaveLength(1);
  });

  it('lets go of what no tab has open any more, and keeps the place of what is', () => {
    const browser = new StandInStreams();
    const [first, second, third] = [browser.tab(), browser.tab(), browser.tab()];
    first.feed.follow('a');
    second.feed.follow('b');
    third.feed.follow('b');
    browser.wait();
    browser.say('here', { canvas: 'b', stamp: '2-5' });
    second.close();
    browser.wait();
    // Another tab still has it.
    expect(browser.opened.at(-1)).toMatch(/canvas=b/);
    const opened = browser.opened.length;
    third.close();
    browser.wait();
    expect(browser.opened.slice(opened)).toEqual(['/api/events?canvas=a']);
    // Whoever counts may begin to follow something itself.
    const fourth = browser.tab();
    fourth.feed.follow('d');
    browser.wait();
    fourth.close();
    first.feed.follow('e');
    browser.wait();
    expect(browser.opened.at(-1)).toBe('/api/events?canvas=a&canvas=e');
    // An evening of a browser in which a tab stays open, and many are opened and end without a word.
    for (let i = 0; i < 40; i++) {
      const tab = browser.tab();
      tab.feed.follow(`c${i}`);
      browser.wait();
      tab.sleep();
    }
    expect(browser.opened.at(-1)!.split('canvas=').length - 1).toBeLessThan(24);
    const last = browser.tab();
    last.feed.follow('a');
    last.feed.follow('c99');
    browser.wait();
    expect(browser.opened.at(-1)).toMatch(/canvas=c99/);
  });

  it('is opened anew from where it was when it says nothing any more, and left alone while it speaks', () => {
    const browser = new StandInStreams();
    const { feed, told } = browser.tab();
    feed.follow('a');
    browser.wait();
    browser.say('here', {});
    browser.say('mark', { canvas: 'a', stamp: '2-6', ...toldMark(5, 6, 'lay', [0, 1]) });
    for (let i = 0; i < 6; i++) {
      browser.wait(20_000);
      browser.say('beat', {});
    }
    expect(browser.opened).toHaveLength(1);
    // The connection is dead, and no error says so.
    browser.wait(70_000);
    expect(browser.opened).toEqual(['/api/events?canvas=a', '/api/events?canvas=a~2-6']);
    browser.say('here', {});
    expect(told.at(-1)).toEqual({ kind: 'missed', canvas: null });
  });

  it('is opened anew at once when a machine wakes that slept', () => {
    const browser = new StandInStreams();
    const tab = browser.tab();
    tab.feed.follow('a');
    browser.wait();
    tab.sleep();
    browser.wait(3_600_000);
    expect(browser.opened).toHaveLength(1);
    tab.wake();
    browser.wait(200);
    expect(browser.opened).toHaveLength(2);
  });

  it('is taken over from a tab that sleeps; when that one wakes it reads anew and waits its turn', () => {
    const browser = new StandInStreams();
    const [first, second, third] = [browser.tab(), browser.tab(), browser.tab()];
    first.feed.follow('a');
    second.feed.follow('b');
    browser.wait();
    // As long as the one that holds it is awake nobody takes it, though the server says nothing.
    for (let i = 0; i < 3; i++) {
      browser.wait(40_000);
      browser.say('here', {});
    }
    const before = browser.opened.length;
    first.sleep();
    browser.wait(70_000);
    expect(browser.opened.length).toBe(before + 1);
    expect(browser.opened.at(-1)).toContain('canvas=b');
    browser.say('mark', { canvas: 'b', stamp: '1-7', ...toldMark(0, 7, 'lay', [0, 1]) });
    expect(second.told.at(-1)).toMatchObject({ kind: 'mark', canvas: 'b' });
    expect(third.told.at(-1)).toMatchObject({ kind: 'mark', canvas: 'b' });
    first.wake();
    browser.wait();
    expect(first.told).toContainEqual({ kind: 'missed', canvas: 'a' });
    // It is told by the other one what it follows.
    expect(browser.opened.at(-1)).toMatch(/canvas=a/);
    expect(browser.opened.at(-1)).toMatch(/canvas=b/);
    const opened = browser.opened.length;
    browser.wait(40_000);
    browser.say('beat', {});
    browser.wait(40_000);
    expect(browser.opened.length).toBe(opened);
  });
});
