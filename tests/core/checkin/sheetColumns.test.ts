import { describe, expect, it } from 'vitest';
import {
  type ColumnMapping,
  emptyMapping,
  guessColumns,
  headingsIn,
  type SheetField,
} from '../../../src/core/checkin/sheetColumns';

const columnsOf = (header: string[] | null, ...rows: string[]) => {
  const { mapping, guessed } = guessColumns(
    header,
    rows.map((row) => row.split(' ')),
  );
  const found = Object.entries(mapping).filter(([, column]) => column !== null);
  return { found: Object.fromEntries(found) as Partial<ColumnMapping>, guessed };
};

/** As makers and shops write them (common practice, no source). */
const HEADINGS: Record<SheetField, string> = {
  keyNumber: 'Key, Key number, KEY NO., No, Nr., Number, Position, Pos, Index, ID, #',
  symbol: 'Symbol, Sym., Sign, Mark, Icon, Glyph',
  code: 'Code, Colour code, Color code, Drill code, Colour no., Color No, Shade',
  name: 'Name, Colour name, Color name, Description, Title, Colour, Color',
  hex: 'Hex, RGB, Hex code, Colour (hex), Colour hex, Color hex, Swatch, sRGB',
  finish: 'Finish, Type, Kind, Surface, Drill type, Effect',
  neededDrills:
    'Drills, Drills needed, Needed, Needed drills, Count, Quantity, Qty, Amount, Pieces, Pcs., Total, Cells, Stones',
  packets: 'Packets, Packet, Bags, Bag, Packs, Pack, Pkts, Pkt, Packages',
};

describe('headings of a sheet', () => {
  it.each(
    Object.entries(HEADINGS).flatMap(([field, words]) => words.split(', ').map((word) => [word, field])),
  )('“%s” names %s', (word, field) => {
    expect(guessColumns([word], []).mapping).toEqual({ ...emptyMapping(), [field]: 0 });
    expect(headingsIn(['', word, 'else'])).toBe(1);
  });

  // Words of the languages, from memory.
  it.each([
    [
      'Nr.;Symbol;Farbe;Farbnr.;Anzahl;Beutel',
      '1;#;Schwarz;310;1250;7',
      'keyNumber symbol name code neededDrills packets',
    ],
    [
      'N°;Symbole;Code couleur;Quantité;Sachets',
      '1;A;310;1250;7',
      'keyNumber symbol code neededDrills packets',
    ],
    ['N°;Symbole;Couleur;Nombre', '1;A;310;1250', 'keyNumber symbol code neededDrills'],
    ['Nº;Símbolo;Color;Nombre;Cantidad', '1;A;310;Negro;1250', 'keyNumber symbol code name neededDrills'],
    [
      'N.;Simbolo;Codice colore;Nome;Quantità',
      '1;A;310;Nero;1250',
      'keyNumber symbol code name neededDrills',
    ],
    ['№;Símbolo;Cor;Qtd.;Saquinhos', '1;A;310;1250;7', 'keyNumber symbol code neededDrills packets'],
    [
      'Nr;Symbool;Kleurnummer;Afwerking;Aantal;Zakjes',
      '1;A;310;;1250;7',
      'keyNumber symbol code finish neededDrills packets',
    ],
    ['Lp.;Symbol;Kod;Ilość;Woreczki', '1;A;310;1250;7', 'keyNumber symbol code neededDrills packets'],
    ['Číslo;Znak;Kód barvy;Počet;Sáčky', '1;A;310;1250;7', 'keyNumber symbol code neededDrills packets'],
    ['Nr;Symbol;Färgkod;Antal;Påsar', '1;A;310;1250;7', 'keyNumber symbol code neededDrills packets'],
    ['№;Символ;Цвет;Кол-во, шт.', '1;A;310;1250', 'keyNumber symbol code neededDrills'],
    [
      '序号;符号;色号;颜色;数量;包数',
      '1;A;310;黑色调;1250;7',
      'keyNumber symbol code name neededDrills packets',
    ],
    ['编号;色号;数量（颗）', '1;310;1250', 'keyNumber code neededDrills'],
    ['符号;编号;颗数', 'A;310;1250', 'symbol code neededDrills'],
    ['番号;記号;色番号;個数', '1;A;310;1250', 'keyNumber symbol code neededDrills'],
    ['번호;기호;색상 번호;수량', '1;A;310;1250', 'keyNumber symbol code neededDrills'],
  ])('“%s” are read in their language', (headings, row, fields) => {
    const header = headings.split(';');
    const expected = fields.split(' ').map((field, i) => [field, i]);
    const rows = [row.split(';'), row.replace(/^1/, '2').replace('310', '321').split(';')];
    expect(guessColumns(header, rows).mapping).toEqual({
      ...emptyMapping(),
      ...Object.fromEntries(expected),
    });
    expect(headingsIn(header)).toBe(header.length);
  });

  it('with a unit or an addition name the same', () => {
    expect(
      columnsOf(['Qty (pcs)', 'Bags/kit', 'Code: maker', 'Name [long]', 'Finish {extra}']).found,
    ).toEqual({
      ...{ neededDrills: 0, packets: 1, code: 2, name: 3, finish: 4 },
    });
  });

  it('of several words name what one of them says, and count as a heading only where they say it plainly', () => {
    expect(columnsOf(['Pieces in all', 'The code']).found).toEqual({ neededDrills: 0, code: 1 });
    expect(headingsIn(['Pieces in all', 'The code'])).toBe(1);
  });

  it('that say nothing are none', () => {
    expect(columnsOf(['Where it lies', 'Remarks']).found).toEqual({});
    expect(headingsIn(['Where it lies', '', '412'])).toBe(0);
  });

  it('are shared out the surest first: one column a field, and the left one of two alike', () => {
    expect(columnsOf(['Colour', 'Code']).found).toEqual({ name: 0, code: 1 });
    expect(columnsOf(['Colour', 'Drills'], '412 190', '98 96').found).toEqual({ code: 0, neededDrills: 1 });
    expect(columnsOf(['Colour', 'Name']).found).toEqual({ code: 0, name: 1 });
    expect(columnsOf(['Drills', 'Drills']).found).toEqual({ neededDrills: 0 });
    expect(columnsOf(['Total', 'Drills']).found).toEqual({ neededDrills: 1 });
  });

  it('that are contradicted by what stands below are outdone by a column that fits', () => {
    // Two columns are called colour: the one with words is the name.
    expect(columnsOf(['Colour', 'Colour'], 'Moss 412', 'Dusk 98', 'Straw 1204').found).toEqual({
      name: 0,
      code: 1,
    });
  });
});

describe('columns without headings', () => {
  it('are known by what stands in them', () => {
    const { found, guessed } = columnsOf(
      null,
      '1 ★ 412 Moss #4a7c3f plain 190 1',
      '2 ● 98 Dusk #34406e metallic 96 1',
      '3 ▲ 1204 Straw #e0c060 plain 1900 2',
    );
    expect(found).toEqual({ keyNumber: 0, symbol: 1, code: 2, name: 3, hex: 4, finish: 5, neededDrills: 6 });
    expect([...guessed].sort()).toEqual(
      ['keyNumber', 'symbol', 'code', 'name', 'hex', 'finish', 'neededDrills'].sort(),
    );
  });

  it('that are headed by a word of ours are not guessed', () => {
    expect(columnsOf(['Code', 'Drills'], '412 190', '98 96').guessed).toEqual([]);
    // Only what a sheet cannot do without is taken from under a word that says something else.
    const odd = columnsOf(
      ['Ref', 'Word', 'How many', 'Shown as'],
      'SH412 Moss 190 #4a7c3f',
      'SH98 Dusk 96 #34406e',
    );
    expect(odd.found).toEqual({ code: 0, neededDrills: 2, hex: 3 });
    expect(odd.guessed.sort()).toEqual(['code', 'hex', 'neededDrills']);
  });

  it('the larger of two columns of numbers holds the drills; the other one is not guessed to be bags', () => {
    expect(columnsOf(null, 'A412 190 1', 'A98 96 1', 'A1204 90 2').found).toEqual({
      code: 0,
      neededDrills: 1,
    });
    expect(columnsOf(null, 'A412 1 190', 'A98 1 96', 'A1204 2 90').found).toEqual({
      code: 0,
      neededDrills: 2,
    });
  });

  it('codes are numbers too, and larger ones than the drills', () => {
    expect(columnsOf(null, '3412 190', '3098 96', '3204 90').found).toEqual({ code: 0, neededDrills: 1 });
    // By its name, wherever it stands.
    expect(columnsOf(['How many', 'Code'], '190 3412', '96 3098', '90 3204').found).toEqual({
      neededDrills: 0,
      code: 1,
    });
  });

  it('numbers that count up from one row to the next are key numbers, neither codes nor drills', () => {
    expect(columnsOf(null, '7 412 190', '8 98 96', '9 1204 90').found).toEqual({
      ...{ keyNumber: 0, code: 1, neededDrills: 2 },
    });
    // A single row counts nothing.
    expect(columnsOf(null, '412 190').found).not.toHaveProperty('keyNumber');
  });

  it('what comes again and again is no code, and what is long is none', () => {
    expect(columnsOf(null, 'SH1 190', 'SH1 96', 'SH1 90', 'SH2 70').found.code).not.toBe(0);
    expect(columnsOf(null, 'SH1 90', 'SH1 90', 'SH3 90', 'SH2 90').found.code).toBe(0);
    expect(columnsOf(null, 'ABCDEFGHIJK12 190', 'ABCDEFGHIJK13 96').found.code).not.toBe(0);
    expect(columnsOf(null, 'ABCDEFGHIJ12 190', 'ABCDEFGHIJ13 96').found).toMatchObject({ code: 0 });
  });

  it('a few odd values do no harm: one of ten is let pass, three are not', () => {
    const rows = (odd: number, value: string, usual: (i: number) => string) =>
      Array.from({ length: 10 }, (_, i) => `${i < odd ? value : usual(i)} x`);
    const taken = (field: SheetField, lines: string[]) => columnsOf(null, ...lines).found[field] === 0;
    const shade = (i: number) => `#4a7c3${i}`;
    expect([taken('hex', rows(2, '?', shade)), taken('hex', rows(3, '?', shade))]).toEqual([true, false]);
    const finish = () => 'metallic';
    expect([taken('finish', rows(1, '?', finish)), taken('finish', rows(2, '?', finish))]).toEqual([
      true,
      false,
    ]);
    const symbol = (i: number) => '★●▲■◆♥♣♠✚✿'[i]!;
    expect([taken('symbol', rows(1, 'four', symbol)), taken('symbol', rows(2, 'four', symbol))]).toEqual([
      true,
      false,
    ]);
    const name = (i: number) => `Moss${'abcdefghij'[i]}`;
    expect([taken('name', rows(2, 'xy', name)), taken('name', rows(3, 'xy', name))]).toEqual([true, false]);
    const drills = (odd: number) =>
      Array.from({ length: 10 }, (_, i) => `SH${412 + i * 3} ${i < odd ? 'many' : 190 - ((i * 37) % 100)}`);
    expect(columnsOf(null, ...drills(1)).found).toEqual({ code: 0, neededDrills: 1 });
    expect(columnsOf(null, ...drills(2)).found).toEqual({ code: 0 });
  });

  it('colours of six digits and no letter are no colours unless a sign or a letter says so', () => {
    expect(columnsOf(null, '412345 190', '998877 96').found).not.toHaveProperty('hex');
    expect(columnsOf(null, '#412345 190', '#998877 96').found).toMatchObject({ hex: 0 });
    expect(columnsOf(null, '4A2345 SH1 190', '9988F7 SH2 96').found).toMatchObject({ hex: 0, code: 1 });
    expect(columnsOf(null, '#abc 190', '#98f 96').found).toMatchObject({ hex: 0 });
  });

  it('codes of three signs are codes, also where they could be colours', () => {
    const rows = ['B52 190', 'E40 96', 'A1C 90'];
    expect(columnsOf(null, ...rows).found).toEqual({ code: 0, neededDrills: 1 });
    expect(columnsOf(['Ref', 'How many'], ...rows).found).toEqual({ code: 0, neededDrills: 1 });
    expect(columnsOf(['Hex', 'How many'], ...rows).found).toMatchObject({ hex: 0 });
  });

  it('six signs without # are codes where nothing else can be them, else colours', () => {
    const alone = columnsOf(null, 'AB1234 190', 'AC1301 96', 'AC1777 90');
    expect(alone.found).toEqual({ code: 0, neededDrills: 1 });
    expect(alone.guessed.sort()).toEqual(['code', 'neededDrills']);
    expect(
      guessColumns(null, [
        ['AB1234', '190'],
        ['AC1301', ''],
        ['AC1777', '90'],
      ]).mapping.code,
    ).toBe(0);
    const beside = columnsOf(null, '4a7c3f SH1 190', 'ee406e SH7 96', 'e0c060 SH9 90');
    expect(beside.found).toEqual({ hex: 0, code: 1, neededDrills: 2 });
    expect(columnsOf(['Hex', 'Drills'], 'AB1234 190', 'AC1301 96').found).toEqual({
      hex: 0,
      neededDrills: 1,
    });
  });

  it('empty cells and short rows say nothing against a column', () => {
    const { mapping } = guessColumns(null, [['412', '190'], ['', ''], ['98'], ['1204', '90']]);
    expect(mapping).toMatchObject({ code: 0, neededDrills: 1 });
    expect(guessColumns(null, []).mapping).toEqual(emptyMapping());
    expect(guessColumns(['Code', ''], [['412', '']]).mapping).toEqual({ ...emptyMapping(), code: 0 });
  });
});
