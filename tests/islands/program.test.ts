import { describe, expect, it, vi } from 'vitest';
import { ProgramWatch } from '../../src/islands/writing/program';

describe('a page', () => {
  it('notices once that its server is of another build, and keeps that', () => {
    const program = new ProgramWatch('a1');
    const listener = vi.fn();
    const stop = program.subscribe(listener);
    program.heard('a1');
    program.heard(null);
    expect([program.current(), listener.mock.calls.length]).toEqual([false, 0]);
    program.heard('b2');
    program.heard('b2');
    program.heard('a1');
    expect([program.current(), listener.mock.calls.length]).toEqual([true, 1]);
    stop();
  });

  it('that does not know its own build says nothing', () => {
    const program = new ProgramWatch(null);
    program.heard('b2');
    expect(program.current()).toBe(false);
  });

  it('tells nobody who has stopped listening', () => {
    const program = new ProgramWatch('a1');
    const listener = vi.fn();
    program.subscribe(listener)();
    program.heard('b2');
    expect(listener).not.toHaveBeenCalled();
  });
});
