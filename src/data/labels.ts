import type { LabelFormat, LabelSheet } from '../core/labels/sheet';
import type { Queries } from './engine/database';

/** The sheets that the user has measured, by format. */
export async function labelSheets(queries: Queries): Promise<Map<LabelFormat, LabelSheet>> {
  const rows = await queries.query<{ format: LabelFormat; sheet: LabelSheet }>(
    'select format, sheet from label_sheet',
  );
  return new Map(rows.map(({ format, sheet }) => [format, sheet]));
}

export async function putLabelSheet(queries: Queries, format: LabelFormat, sheet: LabelSheet): Promise<void> {
  await queries.query(
    `insert into label_sheet (format, sheet) values ($1, $2::jsonb)
     on conflict (format) do update set sheet = excluded.sheet`,
    [format, JSON.stringify(sheet)],
  );
}

/** Back to the usual sheet. */
export async function removeLabelSheet(queries: Queries, format: LabelFormat): Promise<void> {
  await queries.query('delete from label_sheet where format = $1', [format]);
}
