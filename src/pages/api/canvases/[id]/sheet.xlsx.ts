import { sheetTableOut } from '../../../../core/checkin/checkinTable';
import { legendOf } from '../../../../data/canvas';
import { writeSpreadsheet, XLSX_TYPE } from '../../../../server/files/spreadsheet';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { header, rows } = sheetTableOut(await legendOf(database, canvas.id));
  return content(await writeSpreadsheet(canvas.title, header, rows), XLSX_TYPE, `${canvas.title} sheet.xlsx`);
});
