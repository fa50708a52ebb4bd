import { useEffect, useState } from 'react';

/** An address under which the page can show a picture file; null until it is known that this browser can. */
export function usePictureUrl(file: File): string | null {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    let own: string | null = null;
    let left = false;
    createImageBitmap(file).then(
      (picture) => {
        picture.close();
        if (left) return;
        own = URL.createObjectURL(file);
        setUrl(own);
      },
      // Not every kind that the server reads is shown by a browser; then there is nothing to look at.
      () => {},
    );
    return () => {
      left = true;
      if (own) URL.revokeObjectURL(own);
      setUrl(null);
    };
  }, [file]);
  return url;
}
