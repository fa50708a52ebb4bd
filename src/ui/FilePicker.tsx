import { type ReactNode, useEffect, useId, useRef, useState } from 'react';
import { theDrops } from './fileDrops';

/** A button that lets a file be chosen, or dropped; the same file can be chosen again. */
export function FilePicker({
  words,
  accept,
  disabled = false,
  className = '',
  several = false,
  onChoose,
}: {
  words: ReactNode;
  accept: string;
  disabled?: boolean;
  className?: string;
  /** Several may be chosen at once; each is told. */
  several?: boolean;
  onChoose: (file: File) => void;
}) {
  const id = useId();
  const button = useRef<HTMLLabelElement>(null);
  const [tooMany, setTooMany] = useState(false);
  const take = (files: readonly File[]) => {
    setTooMany(files.length > 1 && !several);
    if (files.length === 1 || several) for (const file of files) onChoose(file);
  };
  const newest = useRef(take);
  newest.current = take;
  useEffect(() => {
    if (disabled || !button.current) return;
    return theDrops.add({ element: button.current, take: (files) => newest.current(files) });
  }, [disabled]);
  return (
    <>
      <input
        id={id}
        type="file"
        accept={accept}
        className="peer sr-only"
        disabled={disabled}
        multiple={several}
        onChange={(event) => {
          take([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <label
        ref={button}
        className={`button ${disabled ? '' : 'takes-files'} peer-focus-visible:outline-3 peer-focus-visible:outline-accent ${className}`}
        htmlFor={id}
      >
        {words}
      </label>
      {tooMany && <span role="alert">One file at a time, please.</span>}
    </>
  );
}
