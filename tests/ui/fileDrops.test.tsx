// @vitest-environment jsdom
import { act, render, screen } from '@testing-library/react';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { FilePicker } from '../../src/ui/FilePicker';
import { theDrops } from '../../src/ui/fileDrops';

beforeAll(() => theDrops.watch(window));

const file = (name: string) => new File(['x'], name);
/** Drags over a place and lets go there. @returns what the pointer said, and whether the browser leaves the page alone */
function drop(on: Element, files: File[], types = ['Files']) {
  const dataTransfer = { types, files, dropEffect: 'copy' };
  const send = (kind: string) => {
    const event = Object.assign(new Event(kind, { bubbles: true, cancelable: true }), { dataTransfer });
    act(() => void on.dispatchEvent(event));
    return event;
  };
  send('dragover');
  const marked = document.documentElement.hasAttribute('data-dragging');
  const { defaultPrevented } = send('drop');
  return { effect: dataTransfer.dropEffect, marked, defaultPrevented };
}

describe('files dropped on a page', () => {
  it('never leave it, also where nothing takes them', () => {
    expect(drop(document.body, [file('a')])).toEqual({
      effect: 'none',
      marked: false,
      defaultPrevented: true,
    });
    // Words that are dragged into a field are none of ours.
    expect(drop(document.body, [], ['text/plain']).defaultPrevented).toBe(false);
  });

  it('go to the one place that takes files, wherever they fall', () => {
    const onChoose = vi.fn();
    const { rerender } = render(<FilePicker words="Choose" accept=".csv" onChoose={onChoose} />);
    expect(drop(document.body, [file('a')])).toEqual({
      effect: 'copy',
      marked: true,
      defaultPrevented: true,
    });
    expect(onChoose).toHaveBeenCalledOnce();
    expect(document.documentElement.hasAttribute('data-dragging')).toBe(false);
    drop(screen.getByText('Choose'), [file('a'), file('b')]);
    expect(onChoose).toHaveBeenCalledOnce();
    expect(screen.getByRole('alert').textContent).toBe('One file at a time, please.');
    rerender(<FilePicker words="Choose" accept=".csv" onChoose={onChoose} disabled />);
    expect(drop(document.body, [file('a')]).effect).toBe('none');
    expect(onChoose).toHaveBeenCalledOnce();
  });

  it('go to the place under them where there are several', () => {
    const [one, two] = [vi.fn(), vi.fn()];
    render(
      <>
        <FilePicker words="One" accept="" onChoose={one} />
        <FilePicker words="Two" accept="" several onChoose={two} />
      </>,
    );
    expect(drop(document.body, [file('a')]).effect).toBe('none');
    drop(screen.getByText('Two'), [file('a'), file('b')]);
    expect(two.mock.calls.map(([{ name }]) => name)).toEqual(['a', 'b']);
    expect(one).not.toHaveBeenCalled();
  });

  it('pass by what lies behind an open dialog', () => {
    const [behind, within] = [vi.fn(), vi.fn()];
    const { container } = render(
      <>
        <FilePicker words="Behind" accept="" onChoose={behind} />
        <dialog>
          <FilePicker words="Within" accept="" onChoose={within} />
        </dialog>
      </>,
    );
    container.querySelector('dialog')!.setAttribute('open', '');
    drop(document.body, [file('a')]);
    expect(within).toHaveBeenCalledOnce();
    expect(behind).not.toHaveBeenCalled();
  });
});
