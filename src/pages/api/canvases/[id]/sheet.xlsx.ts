import { sheetTableOut } from '../../../../core/checkin/checkinTable';
import { legendOf } from '../../../../data/canvas';
import { XLSX_TYPE } from '../../../../server/files/spreadsheet';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { inWorker } from '../../../../server/jobs/pool';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { header, rows } = sheetTableOut(await legendOf(database, canvas.id));
  return content(
    await inWorker('writeSpreadsheet', { name: canvas.title, header, rows }),
    XLSX_TYPE,
    `${canvas.title} sheet.xlsx`,
  );
});
