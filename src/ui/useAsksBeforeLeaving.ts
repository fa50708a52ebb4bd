import { useEffect } from 'react';

/** The browser asks before a page is left on which something would be lost. @param isOpen whether something would be */
export function useAsksBeforeLeaving(isOpen: boolean): void {
  useEffect(() => {
    if (!isOpen) return;
    const asks = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', asks);
    return () => window.removeEventListener('beforeunload', asks);
  }, [isOpen]);
}
