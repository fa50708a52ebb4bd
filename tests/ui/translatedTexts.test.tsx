// @vitest-environment jsdom
import { act, render } from '@testing-library/react';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TranslatedTexts } from '../../src/ui/translatedTexts';

const { removeChild, insertBefore } = Node.prototype;
beforeAll(() => new TranslatedTexts().watch(document.body));
afterAll(() => Object.assign(Node.prototype, { removeChild, insertBefore }));

/** Ways in which translators put their words into a page. */
const WAYS: Record<string, (text: Text, words: Node) => void> = {
  'in one step': (text, words) => text.parentNode!.replaceChild(words, text),
  'theirs first, ours out after': (text, words) => {
    text.before(words);
    text.remove();
  },
  'theirs behind, ours out after': (text, words) => {
    text.after(words);
    text.remove();
  },
};
const inFonts = (words: string) => {
  const font = document.createElement('font');
  font.innerHTML = '<font></font>';
  font.firstElementChild!.textContent = words;
  return font;
};
/** Translates all texts of the page that are not translated yet. */
async function translate(swap = WAYS['in one step']!, made: (words: string) => Node = inFonts) {
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  const texts: Text[] = [];
  while (walker.nextNode()) texts.push(walker.currentNode as Text);
  for (const text of texts)
    if (!text.data.startsWith('~') && text.data !== '') swap(text, made(`~${text.data}`));
  await settle();
}
const settle = () => act(() => new Promise<void>((resolve) => setTimeout(resolve)));

function Count({ bags, missing }: { bags: number; missing: boolean }) {
  return (
    <p>
      {bags} of 48 bags{missing && ', some are missing'}
      {missing && <b>Look</b>}.
    </p>
  );
}

describe.each(Object.entries(WAYS))('texts that a translator has taken away, %s', (_, swap) => {
  it('are true when they change, and are translated anew', async () => {
    const { container, rerender } = render(<Count bags={3} missing={false} />);
    await translate(swap);
    expect(container.textContent).toBe('~3~ of 48 bags~.');
    rerender(<Count bags={4} missing={false} />);
    await settle();
    expect(container.textContent.replaceAll('~', '')).toBe('4 of 48 bags.');
    await translate(swap);
    expect(container.textContent).toBe('~4~ of 48 bags~.');
    rerender(<Count bags={5} missing={false} />);
    await settle();
    expect(container.textContent.replaceAll('~', '')).toBe('5 of 48 bags.');
  });

  it('come and go with what stands for them, in their order', async () => {
    const { container, rerender } = render(<Count bags={3} missing={false} />);
    await translate(swap);
    rerender(<Count bags={3} missing />);
    await settle();
    expect(container.textContent.replaceAll('~', '')).toBe('3 of 48 bags, some are missingLook.');
    await translate(swap);
    rerender(<Count bags={3} missing={false} />);
    await settle();
    expect(container.textContent.replaceAll('~', '')).toBe('3 of 48 bags.');
    rerender(<p>Done</p>);
    expect(container.textContent).toBe('Done');
  });
});

describe('a translated text', () => {
  it('comes back with its sentence', async () => {
    const { container, rerender } = render(<Count bags={3} missing={false} />);
    await translate();
    rerender(<Count bags={4} missing={false} />);
    await settle();
    expect(container.textContent).toBe('4 of 48 bags.');
  });

  it('may be a plain text of the translator’s own', async () => {
    const { container, rerender } = render(<Count bags={3} missing={false} />);
    for (let bags = 4; bags < 7; bags++) {
      await translate(WAYS['in one step'], (words) => document.createTextNode(words));
      expect(container.textContent).toBe(`~${bags - 1}~ of 48 bags~.`);
      rerender(<Count bags={bags} missing={false} />);
      await settle();
      expect(container.textContent).toBe(`${bags} of 48 bags.`);
    }
  });

  it('may be wrapped and stay the same node', async () => {
    const { container, rerender } = render(<Count bags={3} missing />);
    for (const text of [...container.querySelector('p')!.childNodes]) {
      if (!(text instanceof Text)) continue;
      const font = document.createElement('font');
      text.replaceWith(font);
      font.append(text);
    }
    await settle();
    rerender(<Count bags={4} missing={false} />);
    await settle();
    expect(container.textContent).toBe('4 of 48 bags.');
    rerender(<Count bags={4} missing />);
    await settle();
    expect(container.textContent).toBe('4 of 48 bags, some are missingLook.');
  });

  it('may be translated over again, and be shown as it was', async () => {
    const { container, rerender } = render(<Count bags={3} missing={false} />);
    const texts = [...container.querySelector('p')!.childNodes];
    await translate();
    for (const font of container.querySelectorAll('p > font'))
      font.replaceWith(inFonts(`~~${font.textContent}`));
    await settle();
    rerender(<Count bags={4} missing={false} />);
    await settle();
    expect(container.textContent).toBe('4 of 48 bags.');
    await translate();
    for (const [i, font] of [...container.querySelectorAll('p > font')].entries())
      font.replaceWith(texts[i]!);
    await settle();
    rerender(<Count bags={5} missing={false} />);
    await settle();
    expect(container.textContent).toBe('5 of 48 bags.');
  });

  it('lets other nodes that are not there be named no more than before', () => {
    const [here, there] = [document.createElement('p'), document.createElement('p')];
    expect(() => here.removeChild(there)).toThrow();
    expect(() => here.insertBefore(document.createElement('p'), there)).toThrow();
  });
});
