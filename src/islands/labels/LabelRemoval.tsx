import { Notice } from '../../ui/Notice';

/** Usual practice for taking labels off, and what it does to which plastic. */
export function LabelRemoval() {
  return (
    <Notice kind="hint">
      <p className="font-semibold">Taking labels off</p>
      <ul className="list-disc pl-5">
        <li>Any plastic: warm water and patience first, then a little cooking oil, then soap.</li>
        <li>Milky, bendy plastic (polypropylene, polyethylene): rubbing alcohol is usually safe.</li>
        <li>Clear, glossy plastic (polystyrene, acrylic): no acetone, no alcohol; both cloud or crack it.</li>
        <li>Tape can stain in time; write on a label, never on the lid.</li>
      </ul>
      <p className="mt-1">
        Test on a hidden spot, air the room, keep flames away. The product’s label comes first.
      </p>
    </Notice>
  );
}
