/**
 * A browser that translates a page puts nodes of its own where our texts stood, while React goes on writing into the
 * texts that it made: counts would stay as they were, and the first text to go would end the page. Here it is known
 * what stands where each text of ours was, so that a text that changes comes back and is translated anew, and one that
 * goes takes its stand-ins along.
 */
export class TranslatedTexts {
  private readonly standIns = new WeakMap<Node, ChildNode[]>();
  private readonly standsFor = new WeakMap<Node, Text>();
  /** Texts that another node took the place of in one step, as nothing of ours does. */
  private readonly swapped = new WeakSet<Text>();
  private readonly swaps = new MutationObserver((records) => this.learn(records));
  private readonly changes = new MutationObserver((records) => {
    for (const { target } of records) this.putBack(target as Text);
  });

  /** Watches all below the root, and from now on lets texts be named that something else stands for. */
  watch(root: Node): void {
    this.swaps.observe(root, { childList: true, subtree: true });
    const { removeChild, insertBefore } = Node.prototype;
    const texts = this;
    Node.prototype.removeChild = function <T extends Node>(this: Node, child: T): T {
      if (child.parentNode === this || !(child instanceof Text)) return removeChild.call(this, child) as T;
      texts.remove(child);
      return child;
    };
    Node.prototype.insertBefore = function <T extends Node>(this: Node, node: T, before: Node | null): T {
      const elsewhere = before instanceof Text && before.parentNode !== this;
      return insertBefore.call(this, node, elsewhere ? texts.placeOf(before, this) : before) as T;
    };
  }

  private learn(records: MutationRecord[]): void {
    // Some put theirs in first and take ours out afterwards.
    const beside = new Map<Node, NodeList>();
    for (const { addedNodes, nextSibling, previousSibling } of records) {
      if (addedNodes.length === 0) continue;
      for (const sibling of [nextSibling, previousSibling]) if (sibling) beside.set(sibling, addedNodes);
    }
    for (const { removedNodes, addedNodes } of records) {
      // What is there again needs nobody in its place.
      for (const node of addedNodes) if (node.isConnected && this.standIns.has(node)) this.forget(node);
      for (const node of removedNodes) {
        const text = this.standsFor.get(node) ?? node;
        if (!(text instanceof Text) || text.isConnected || node.isConnected) continue;
        const others = this.forget(text).filter((other) => other !== node);
        const added = addedNodes.length > 0 ? addedNodes : beside.get(node);
        if (added) others.push(...([...added] as ChildNode[]));
        if (others.length === 0) continue;
        if (addedNodes.length > 0) this.swapped.add(text);
        this.standIns.set(text, others);
        for (const other of others) this.standsFor.set(other, text);
        this.changes.observe(text, { characterData: true });
      }
    }
  }

  /** Changes the page without learning from that. */
  private quietly(change: () => void): void {
    this.learn(this.swaps.takeRecords());
    change();
    this.swaps.takeRecords();
  }

  /** @returns those that stood for the text, and from now on do no longer */
  private forget(text: Node): ChildNode[] {
    const others = this.standIns.get(text) ?? [];
    this.standIns.delete(text);
    for (const other of others) this.standsFor.delete(other);
    return others;
  }

  private remove(text: Text): void {
    this.quietly(() => {
      for (const other of [text, ...this.forget(text)]) other.remove();
    });
  }

  /** @returns what the parent has where the text stood; null for its end */
  private placeOf(text: Text, parent: Node): Node | null {
    const others: Node[] = [text, ...(this.standIns.get(text) ?? [])];
    for (let other of others) {
      while (other.parentNode && other.parentNode !== parent) other = other.parentNode;
      if (other.parentNode) return other;
    }
    return null;
  }

  /** Puts a text back, and those beside it: the translation of one sentence goes over all of them. */
  private putBack(text: Text): void {
    const parent = this.standIns.get(text)?.find((other) => other.isConnected)?.parentNode;
    if (!parent) return;
    const beside = [...parent.childNodes].map((node) => this.standsFor.get(node));
    this.quietly(() => {
      for (const each of new Set(beside)) {
        if (!each || !(each === text || this.swapped.has(each))) continue;
        const [first, ...others] = this.forget(each).filter((other) => other.parentNode === parent);
        first?.replaceWith(each);
        for (const other of others) other.remove();
      }
    });
  }
}
