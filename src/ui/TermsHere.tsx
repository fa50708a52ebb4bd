import { Fragment } from 'react';
import type { Term } from '../core/words/glossary';
import { TermWord } from './TermWord';

/** Under the fields of a form: the words of the trade in their names, each with its sentence. */
export function TermsHere({ terms }: { terms: readonly Term[] }) {
  return (
    <p className="text-[0.95rem] text-faded">
      What is meant by{' '}
      {terms.map((term, i) => (
        <Fragment key={term}>
          {i === 0 ? '' : i === terms.length - 1 ? ' or ' : ', '}
          <TermWord term={term}>{term}</TermWord>
        </Fragment>
      ))}
      ?
    </p>
  );
}
