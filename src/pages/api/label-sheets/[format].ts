import { LABEL_FORMATS, type LabelFormat } from '../../../core/kitup/labels/sheet';
import { putLabelSheet, removeLabelSheet } from '../../../data/labels';
import { labelSheetSchema } from '../../../server/contract/labels';
import { endpoint, json, readJson } from '../../../server/endpoint';
import { notFound } from '../../../server/problem';

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
