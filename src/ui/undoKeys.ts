import { useEffect } from 'react';
import { keyMeant } from './keyMeant';

/** Ctrl+Z undoes, Ctrl+Y and Ctrl+Shift+Z redo; inside a field with text the field's own undo goes first. */
export function useUndoKeys(undo: () => void, redo: () => void): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey)) return;
      const field = event.target instanceof HTMLElement ? event.target.closest('input, textarea') : null;
      if (field instanceof HTMLInputElement && field.value !== '') return;
      if (field instanceof HTMLTextAreaElement) return;
      const key = keyMeant(event).toLowerCase();
      if (key === 'y' || (key === 'z' && event.shiftKey)) redo();
      else if (key === 'z') undo();
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [undo, redo]);
}
