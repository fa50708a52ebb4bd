import { type ReactNode, useId } from 'react';

/** A button that lets a file be chosen; the same file can be chosen again. */
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
          for (const file of event.target.files ?? []) onChoose(file);
          event.target.value = '';
        }}
      />
      <label
        className={`button peer-focus-visible:outline-3 peer-focus-visible:outline-accent ${className}`}
        htmlFor={id}
      >
        {words}
      </label>
    </>
  );
}
