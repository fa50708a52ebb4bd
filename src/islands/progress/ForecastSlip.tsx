import { hoursInWords } from '../../core/pace/timeInWords';
import { dayInWords } from '../../core/words/calendar';
import { many } from '../../core/words/numbers';
import type { ForecastView } from '../../server/progress/contract';
import { DayField } from '../../ui/DayField';
import { Notice } from '../../ui/Notice';
import { useWrite } from '../writing/useWrite';

const percent = (chance: number) =>
  chance > 0.99 ? 'above 99 %' : chance < 0.01 ? 'below 1 %' : `${Math.round(chance * 100)} %`;

/** When it will be done, as a range, and what it takes to be done by a wished day. */
export function ForecastSlip({
  canvasId,
  view,
  onChange,
}: {
  canvasId: string;
  view: ForecastView;
  onChange: () => void;
}) {
  const { write, fault } = useWrite(canvasId);
  const { forecast, finishBy, usualMinutesAWeek: usual } = view;
  const save = (day: string | null) =>
    void write('PUT', `/api/canvases/${canvasId}/progress-wish`, { finishBy: day }, onChange, true);
  return (
    <section aria-label="Forecast" className="slip flex flex-wrap gap-x-10 gap-y-3" data-testid="forecast">
      <div className="min-w-0 grow basis-80">
        {view.minutesLeft === 0 ? (
          <p className="text-[1.3rem] font-semibold">Nothing is left to lay.</p>
        ) : forecast ? (
          <>
            <p className="text-faded">Likely done on</p>
            <p className="text-[1.5rem] leading-tight font-semibold">{dayInWords(forecast.likely)}</p>
            <p>
              Four times in five between {dayInWords(forecast.early)} and {dayInWords(forecast.late)}.
            </p>
          </>
        ) : (
          <p className="text-[1.2rem] font-semibold">At this pace nobody can say when it will be done.</p>
        )}
        <details>
          <summary className="min-h-11 py-2 underline">How this is reckoned</summary>
          <p>
            {hoursInWords(view.minutesLeft)} of work are left: every bar, single drill and colour to open,
            confetti as confetti.{' '}
            {usual !== null &&
              `Over the last weeks you did ${hoursInWords(usual)} a week, days off among them. `}
            {forecast &&
              (forecast.weeks === 0
                ? 'Nothing is known of your weeks yet: four evenings of an hour are assumed.'
                : `Your ${forecast.weeks === 1 ? 'one week' : `${many(forecast.weeks)} weeks`} so far are drawn again and again, later ones more often${forecast.usual ? ', together with what is usual, because they are few' : ''}.`)}
          </p>
        </details>
      </div>
      <div className="min-w-0 basis-72">
        <DayField words="I would like it done by" value={finishBy} onChange={save} />
        {finishBy !== null && (
          <p className="mt-1.5" aria-live="polite">
            {view.minutesAWeek === null
              ? 'That day has passed; the forecast shows what is likely now.'
              : view.minutesLeft === 0
                ? 'It is done.'
                : `It takes ${hoursInWords(view.minutesAWeek)} a week${view.chance === null ? '' : `; as things go, the chance is ${percent(view.chance)}`}.`}
          </p>
        )}
        {fault && <Notice kind="fault">{fault}</Notice>}
      </div>
    </section>
  );
}
