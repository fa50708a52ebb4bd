import JSZip from 'jszip';
import { expect, test } from './bench';

const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';

/** A workbook with two sheets; codes are numbers that are shown with five digits. */
async function workbook(): Promise<Buffer> {
  const zip = new JSZip();
  zip.file(
    'xl/workbook.xml',
    `<workbook xmlns="${MAIN}" xmlns:r="r"><sheets><sheet name="Cover" sheetId="1" r:id="a"/><sheet name="Kit" sheetId="2" r:id="b"/></sheets></workbook>`,
  );
  zip.file(
    'xl/_rels/workbook.xml.rels',
    '<Relationships><Relationship Id="a" Target="worksheets/sheet1.xml"/><Relationship Id="b" Target="worksheets/sheet2.xml"/></Relationships>',
  );
  zip.file(
    'xl/styles.xml',
    `<styleSheet xmlns="${MAIN}"><numFmts><numFmt numFmtId="164" formatCode="00000"/></numFmts><cellXfs><xf numFmtId="0"/><xf numFmtId="164"/></cellXfs></styleSheet>`,
  );
  const text = (value: string) => `<c t="inlineStr"><is><t>${value}</t></is></c>`;
  zip.file(
    'xl/worksheets/sheet1.xml',
    `<worksheet xmlns="${MAIN}"><sheetData><row>${text('Harbour kit')}</row></sheetData></worksheet>`,
  );
  zip.file(
    'xl/worksheets/sheet2.xml',
    `<worksheet xmlns="${MAIN}"><sheetData><row>${text('Code')}${text('Drills')}</row><row><c s="1"><v>101</v></c><c><v>190</v></c></row><row><c s="1"><v>98</v></c><c t="e"><v>#REF!</v></c></row></sheetData></worksheet>`,
  );
  return Buffer.from(await zip.generateAsync({ type: 'uint8array' }));
}

test('eight odd sheets are read as they are, or say what stands in the way', async ({ page, request }) => {
  const id = crypto.randomUUID();
  const data = { id, title: 'Odd sheets', shape: 'square', pitchMm: 2.5, width: 50, height: 40 };
  expect((await request.post('/api/canvases', { data })).status()).toBe(201);
  await page.goto(`/canvas/${id}/checkin/sheet`);
  const field = page.getByLabel('Or paste the rows here');
  const saves = page.getByRole('button', { name: /^Save/ });

  await test.step('headings with additions, two of one word', async () => {
    await field.fill('No.,Colour,Color No,Qty (pcs)\n1,Moss,412,190\n2,Dusk,98,96');
    await expect(page.getByText('286 drills needed')).toBeVisible();
    await expect(page.getByRole('row', { name: /412 Moss/ })).toBeVisible();
  });
  await test.step('titles above and a sum below', async () => {
    await field.fill('Harbour kit\n\nCode;Drills\n412;190\n98;96\nZusammen;286');
    await expect(page.getByText('2 colours')).toBeVisible();
    await expect(page.getByText('Not read, because it stands above the headings: Harbour kit')).toBeVisible();
    await expect(page.getByText('the rows above add up to it')).toBeVisible();
  });
  await test.step('blocks side by side', async () => {
    await field.fill('Code\tDrills\t\tCode\tDrills\n412\t190\t\t1204\t90\n98\t96\t\t\t');
    await expect(page.getByText('3 colours')).toBeVisible();
    await expect(page.getByText('2 blocks side by side')).toBeVisible();
  });
  await test.step('a quotation mark that is never closed', async () => {
    await field.fill('Code,Name,Drills\n412,"Moss,190\n98,Dusk,96\n1204,Straw,90');
    await expect(page.getByText('3 colours')).toBeVisible();
    await expect(page.getByText('A quotation mark here is never closed')).toBeVisible();
  });
  await test.step('two columns without headings', async () => {
    await field.fill('412\t190\n98\t96\n1204\t90');
    await expect(page.getByText('376 drills needed')).toBeVisible();
    await expect(page.getByText('Guessed from what is in them, so please check')).toBeVisible();
  });
  await test.step('no codes and no drills: nothing is saved without a yes', async () => {
    await field.fill('Key\tSymbol\n1\tA\n2\tB');
    await expect(page.getByText('No column holds the colour codes')).toBeVisible();
    await expect(saves).toBeDisabled();
    await page.getByLabel('Yes, save it like this').check();
    await expect(saves).toBeEnabled();
    await field.fill('Code\tSymbol\n412\tA\n98\tB');
    await expect(page.getByText('No drills are read for any colour')).toBeVisible();
    await expect(saves).toBeDisabled();
  });
  await test.step('another encoding, chosen by hand', async () => {
    const buffer = Buffer.from('Code;Name;Drills\n412;Gr\xfcn;190\n98;Bla\xdf;96', 'latin1');
    await page.getByLabel('Choose a file').setInputFiles({ name: 'kit.csv', mimeType: 'text/csv', buffer });
    await expect(page.getByRole('alert')).toContainText('not UTF-8 text');
    await page.getByLabel('Letters').selectOption('Western European');
    await expect(page.getByRole('row', { name: /412 Grün/ })).toBeVisible();
  });
  await test.step('a workbook: the second worksheet, codes as shown, a faulty cell named', async () => {
    await page
      .getByLabel('Choose a file')
      .setInputFiles({ name: 'kit.xlsx', mimeType: 'application/octet-stream', buffer: await workbook() });
    await page.getByLabel('Worksheet').selectOption('Kit');
    await expect(page.getByRole('row', { name: /00101/ })).toBeVisible();
    await expect(page.getByText('#REF! (a fault in the spreads')).toBeVisible();
    await page.getByRole('button', { name: 'Save the 1 good row' }).click();
    await page.waitForURL(/chart\/read$/);
    const { lines } = await (await request.get(`/api/canvases/${id}/sheet`)).json();
    expect(lines).toMatchObject([{ code: '00101', neededDrills: 190 }]);
  });
});
