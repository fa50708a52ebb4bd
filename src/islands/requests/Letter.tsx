import { type ReactNode, useRef, useState } from 'react';
import { Copy } from '../../ui/icons';
import { Notice } from '../../ui/Notice';

/**
 * A letter to be copied into another program. That it was copied is said of these words alone: a letter that changed
 * since is another one.
 */
export function Letter({ text, children }: { text: string; children: ReactNode }) {
  const field = useRef<HTMLTextAreaElement>(null);
  const [copied, setCopied] = useState<string | null>(null);
  const [failed, setFailed] = useState(false);
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setCopied(text);
      setFailed(false);
    } catch {
      // Where this device does not trust the address, or the browser was told so, there is no clipboard.
      field.current?.select();
      setFailed(true);
    }
  };
  return (
    <>
      <textarea ref={field} className="field h-72" readOnly value={text} aria-label="Letter to the seller" />
      {failed && (
        <Notice kind="hint">
          The browser does not let this page copy. All of the letter is selected: copy it with Ctrl+C, or by
          holding a finger on it.
        </Notice>
      )}
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button button-main" onClick={() => void copy()}>
          <Copy size={20} aria-hidden /> {copied === text ? 'Copied' : 'Copy'}
        </button>
        {children}
      </div>
    </>
  );
}
