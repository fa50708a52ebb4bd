import { sheetTableOut } from '../../../../core/checkin/checkinTable';
import { legendOf } from '../../../../data/canvases';
import { canvasEndpoint, content } from '../../../../server/endpoint';
import { writeSpreadsheet, XLSX_TYPE } from '../../../../server/spreadsheet';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { header, rows } = sheetTableOut(await legendOf(database, canvas.id));
  return content(await writeSpreadsheet(canvas.title, header, rows), XLSX_TYPE, `${canvas.title} sheet.xlsx`);
});
