import { LABEL_FORMATS, type LabelFormat } from '../../../core/labels/sheet';
import { putLabelSheet, removeLabelSheet } from '../../../data/labels';
import { readJson } from '../../../server/http/body';
import { endpoint, json } from '../../../server/http/endpoint';
import { notFound } from '../../../server/http/problem';
import { labelSheetSchema } from '../../../server/labels/contract';

function formatOf(text: string | undefined): LabelFormat {
  const format = LABEL_FORMATS.find((each) => each === text);
  if (!format) throw notFound('such label format');
  return format;
}

export const PUT = endpoint(async (database, { request, params }) => {
  const sheet = await readJson(request, labelSheetSchema);
  await putLabelSheet(database, formatOf(params.format), sheet);
  return json(sheet);
});

export const DELETE = endpoint(async (database, { params }) => {
  await removeLabelSheet(database, formatOf(params.format));
  return new Response(null, { status: 204 });
});
