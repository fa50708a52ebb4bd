/** A place of a page that takes files. */
interface DropPlace {
  /** What a file may be dropped on; with one place on a page also anywhere else. */
  element: HTMLElement;
  take(files: File[]): void;
}

/**
 * Files that are dragged onto a page. A browser would leave the page for a file that is dropped where nothing takes it,
 * and with it what was typed there.
 */
class FileDrops {
  private readonly places = new Set<DropPlace>();

  /** @returns takes the place away */
  add(place: DropPlace): () => void {
    this.places.add(place);
    return () => this.places.delete(place);
  }

  watch(page: Window): void {
    const root = page.document.documentElement;
    const over = (event: DragEvent) => {
      if (!hasFiles(event)) return;
      event.preventDefault();
      const place = this.placeFor(event.target);
      event.dataTransfer!.dropEffect = place ? 'copy' : 'none';
      root.toggleAttribute('data-dragging', place !== null);
    };
    const leave = (event: DragEvent) => {
      if (event.relatedTarget === null) root.removeAttribute('data-dragging');
    };
    const drop = (event: DragEvent) => {
      root.removeAttribute('data-dragging');
      if (!hasFiles(event)) return;
      event.preventDefault();
      this.placeFor(event.target)?.take([...event.dataTransfer!.files]);
    };
    page.addEventListener('dragover', over);
    page.addEventListener('dragleave', leave);
    page.addEventListener('drop', drop);
  }

  private placeFor(target: EventTarget | null): DropPlace | null {
    const dialog = document.querySelector('dialog[open]');
    const open = [...this.places].filter(
      ({ element }) => (element.checkVisibility?.() ?? true) && (!dialog || dialog.contains(element)),
    );
    const under = open.find(({ element }) => target instanceof Node && element.contains(target));
    return under ?? (open.length === 1 ? open[0]! : null);
  }
}

function hasFiles({ dataTransfer }: DragEvent): boolean {
  return dataTransfer?.types.includes('Files') ?? false;
}

/** Those of this page. */
export const theDrops = new FileDrops();
