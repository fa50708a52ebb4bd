import { useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { REQUEST_STATES, stillWanting, toAsk } from '../../core/requests/supplierRequest';
import type { CoverOffer } from '../../core/stash/cover';
import { drillsToTake } from '../../core/stash/cover';
import { counted, many } from '../../core/words/numbers';
import type { RequestEntry, RequestView } from '../../server/requests/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Colour } from '../../ui/Chip';
import { Download } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { CheckinNav } from '../checkin/CheckinNav';
import { Unprintable } from '../labels/Unprintable';
import { useReadAnew } from '../writing/useView';
import { useWrite } from '../writing/useWrite';
import { WithView } from '../writing/WithView';
import { Letter } from './Letter';

/** What is lacking: covered from the stash, or asked of the sender. */
export function RequestPage({ entry }: { entry: ShelfEntry }) {
  const { canvas } = entry;
  return (
    <>
      <CheckinNav canvasId={canvas.id} here="/request" />
      <WithView<RequestView> url={`/api/canvases/${canvas.id}/requests`}>
        {(first) => <Request entry={entry} first={first} />}
      </WithView>
    </>
  );
}

function Request({ entry, first }: { entry: ShelfEntry; first: RequestView }) {
  const { canvas } = entry;
  const url = `/api/canvases/${canvas.id}/requests`;
  const [view, setView] = useState(first);
  const overtakes = useReadAnew(url, ['bags', 'trash', 'sheet', 'other'], setView);
  const { fault, enter } = useWrite(canvas.id);
  const post = (path: string, body: object) =>
    void enter<RequestView>(`${url}${path}`, body, (next) => {
      setView(next);
      overtakes();
    });
  const wanting = stillWanting(view.lines);
  const open = toAsk(view.lines);
  return (
    <div className="grid items-start gap-6 lg:grid-cols-[1fr_26rem]">
      <section className="flex min-w-0 flex-col gap-3">
        <p className="big-number">
          {wanting.length === 0 ? 'Nothing is missing' : `${counted(wanting.length, 'colour')} to get`}
        </p>
        {fault && <Notice kind="fault">{fault}</Notice>}
        {entry.stage === 'checkin' && (
          <Notice kind="hint">
            Not every bag is checked in yet, so this list is longer than it will be.
          </Notice>
        )}
        {view.lines.map((each) => (
          <LackingColour
            key={each.line.line}
            each={each}
            canvas={canvas}
            onState={(state) => post('', { line: each.line.line, state })}
            onCover={(offer, drills) =>
              post('/cover', { line: each.line.line, itemId: offer.item.id, drills })
            }
          />
        ))}
        <p>
          Offers come from{' '}
          <a className="underline" href="/stash">
            your stash of leftovers
          </a>
          .
        </p>
      </section>
      {open.length > 0 && (
        <section className="flex flex-col gap-3">
          <h2>A letter to the seller</h2>
          <Letter text={view.text}>
            {(['pdf', 'csv', 'txt'] as const).map((kind) => (
              <a key={kind} className="button" href={`/api/canvases/${canvas.id}/request.${kind}`}>
                <Download size={20} aria-hidden /> {kind.toUpperCase()}
              </a>
            ))}
          </Letter>
          <Unprintable canvasId={canvas.id} />
          <p className="text-faded">
            {view.photos.length > 0
              ? `${counted(view.photos.length, 'photo')} of the sheet ${view.photos.length === 1 ? 'goes' : 'go'} with the PDF.`
              : 'Photograph the inventory sheet under “Inspection”, and the photo goes with the PDF.'}
          </p>
        </section>
      )}
    </div>
  );
}

function LackingColour({
  each,
  canvas,
  onState,
  onCover,
}: {
  each: RequestEntry;
  canvas: Canvas;
  onState: (state: string) => void;
  onCover: (offer: CoverOffer, drills: number) => void;
}) {
  return (
    <article className="slip !py-3" aria-label={each.line.code}>
      <div className="flex flex-wrap items-center justify-between gap-3">
        <Colour line={each.line} shape={canvas.shape} size={44} />
        <div className="text-right">
          <p className="number text-xl font-semibold">
            {each.lackingDrills > 0
              ? `${many(each.lackingDrills)} more ${each.ranOut ? 'to finish' : 'to be safe'}`
              : each.shortDrills > 0
                ? 'enough with your own'
                : 'all here'}
          </p>
          <p className="text-faded">
            {many(each.receivedDrills)} from the seller of {many(each.neededDrills)}
            {each.bagsMissing > 0 && `, ${counted(each.bagsMissing, 'bag')} missing`}
          </p>
        </div>
      </div>
      {each.line.origin === 'own' && (
        <p className="mt-1 text-faded">You chose this finish yourself, so the seller is not asked for it.</p>
      )}
      <fieldset className="mt-2 flex flex-wrap gap-2" hidden={each.line.origin === 'own'}>
        <legend className="sr-only">How far the request has come</legend>
        {REQUEST_STATES.map((state) => (
          <button
            key={state}
            type="button"
            className={`button ${each.state === state ? 'button-on' : ''}`}
            aria-pressed={each.state === state}
            onClick={() => each.state !== state && onState(state)}
          >
            {state}
          </button>
        ))}
      </fieldset>
      {each.lackingDrills > 0 && each.offers.length > 0 && (
        <ul className="mt-2 flex flex-col gap-2 border-t border-line pt-2">
          {each.offers.map((offer) => {
            const drills = drillsToTake(offer, each.lackingDrills);
            return (
              <li key={offer.item.id} className="flex flex-wrap items-center gap-3">
                <span className="flex border border-edge" aria-hidden>
                  <span className="swatch size-10" style={{ background: each.line.hex ?? UNKNOWN_COLOUR }} />
                  <span className="swatch size-10" style={{ background: offer.item.hex ?? UNKNOWN_COLOUR }} />
                </span>
                <span className="min-w-0 grow basis-56">
                  <span translate="no" className="number font-semibold">
                    {offer.item.code}
                  </span>{' '}
                  in the stash, {counted(offer.item.drills, 'drill')}: {offer.inWords}
                  {offer.as === 'near' &&
                    each.showsMostIn &&
                    `. It would show most in section ${each.showsMostIn.section}`}
                </span>
                <button type="button" className="button" onClick={() => onCover(offer, drills)}>
                  Take {many(drills)}
                </button>
              </li>
            );
          })}
        </ul>
      )}
    </article>
  );
}
