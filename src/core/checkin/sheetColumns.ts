import { readFinish } from '../colour/finish';
import { readHex } from '../colour/rgb';
import { largest } from '../words/numbers';
import { readAmount } from './amount';

/** What a sheet may tell about a colour. */
export const SHEET_FIELDS = [
  'keyNumber',
  'symbol',
  'code',
  'name',
  'hex',
  'finish',
  'neededDrills',
  'packets',
] as const;
export type SheetField = (typeof SHEET_FIELDS)[number];
export type ColumnMapping = Record<SheetField, number | null>;

export const FIELD_IN_WORDS: Record<SheetField, string> = {
  keyNumber: 'Key number',
  symbol: 'Symbol',
  code: 'Colour code',
  name: 'Colour name',
  hex: 'Colour (hex)',
  finish: 'Finish',
  neededDrills: 'Drills needed',
  packets: 'Bags',
};

/** Headings by which a column is recognised, without spaces or punctuation, in lower case; the surest first. */
const HEADINGS: Record<SheetField, readonly string[]> = {
  keyNumber: ['key', 'keynumber', 'keyno', 'no', 'nr', 'number', 'position', 'pos', 'index', 'id', '#'],
  symbol: ['symbol', 'sym', 'sign', 'mark', 'icon', 'glyph'],
  code: ['code', 'colourcode', 'colorcode', 'drillcode', 'colourno', 'colorno', 'shade', 'colour', 'color'],
  name: ['name', 'colourname', 'colorname', 'description', 'title', 'colour', 'color'],
  hex: ['hex', 'rgb', 'hexcode', 'colourhex', 'colorhex', 'swatch', 'srgb'],
  finish: ['finish', 'type', 'kind', 'surface', 'drilltype', 'effect'],
  neededDrills: [
    'drills',
    'drillsneeded',
    'needed',
    'neededdrills',
    'count',
    'quantity',
    'qty',
    'amount',
    'pieces',
    'pcs',
    'total',
    'cells',
    'stones',
  ],
  packets: ['packets', 'packet', 'bags', 'bag', 'packs', 'pack', 'pkts', 'pkt', 'packages'],
};

/** A heading without accents, spaces or punctuation, in lower case. */
function plain(text: string): string {
  return text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\d#]/gu, '');
}

/**
 * The same in other languages: German, French, Spanish, Italian, Portuguese, Dutch, Polish, Czech, Swedish, Danish,
 * Norwegian, Finnish, Hungarian, Romanian, Greek, Turkish, Russian, Ukrainian, Chinese, Japanese, Korean, Vietnamese,
 * Indonesian, Thai, Arabic and Hebrew. One word may mean two things in two languages, or in one; then
 * what stands below it decides.
 */
const ABROAD: Record<SheetField, ReadonlySet<string>> = wordsOf({
  keyNumber:
    'n num numero nummer lfdnr lp numer cislo porcis sira номер пп 序号 序號 编号 編號 番号 번호 순번',
  symbol:
    'symbole simbolo symbool zeichen signe signo segno znak teken tegn tecken sembol simge символ знак значок 符号 ' +
    '符號 图标 圖標 图案 記号 シンボル マーク 기호 심볼',
  code:
    'codigo codice kod farbnr farbnummer farbcode codecouleur nocouleur codigodecolor codigocolor codicecolore ' +
    'codigodacor codigocor kleurcode kleurnummer kleurnr kodkoloru nrkoloru farbe couleur colore cor kleur kolor ' +
    'kodbarvy cislobarvy barva fargkod fargnummer farg farvekode farvenummer farve fargekode farge renkkodu ' +
    'renkno renk koodi vari varikoodi szin szinkod cod culoare codculoare κωδικος χρωμα код кодцвета номерцвета ' +
    'цвет колір 代码 代碼 色号 色號 色码 色碼 颜色编号 顏色編號 颜色代码 颜色 顏色 编号 編號 色番号 色番 色 コード カラーコード カラー番号 색번호 색상번호 색상코드 코드 색상 mã ' +
    'mãmàu màu kode kodewarna warna รหัส รหัสสี สี الرمز رمز كود رقماللون اللون קוד צבע',
  name:
    'bezeichnung farbname nom nomcouleur nombre nome naam nazwa descripcion descricao descrizione omschrijving ' +
    'opis farbe couleur colore cor kleur kolor nazev nazevbarvy barva namn fargnamn farg navn farvenavn farve ' +
    'fargenavn farge nimi vari nev szin nume denumire culoare ονομα περιγραφη χρωμα ad renkadi renk назва колір ' +
    'название названиецвета цвет 名称 名稱 颜色名称 顏色名稱 颜色 顏色 色名 名前 カラー名 이름 색이름 색상명 색상 tên tênmàu màu nama warna ชื่อ ' +
    'ชื่อสี สี الاسم اسم اسماللون اللون שם צבע',
  hex: '',
  finish:
    'oberflache finition acabado acabamento finitura afwerking wykonczenie typ tipo art тип вид 类型 類型 种类 種類 종류',
  neededDrills:
    'anzahl menge stuck stk steine quantite qte nombre diamants cantidad cant diamantes quantita qta diamanti ' +
    'quantidade qtd qtde aantal diamantjes steentjes ilosc liczba sztuk szt diamenty pocet kusu ks kaminku ' +
    'diamantu antal antall maara kpl kappaletta darab db mennyiseg darabszam cantitate bucati buc ποσοτητα ' +
    'τεμαχια adet miktar кількість количество колво кол шт штук страз стразы 数量 數量 颗数 顆數 粒数 粒數 钻数 鑽數 个数 個數 個数 総数 ' +
    '수량 개수 갯수 sốlượng sốhạt jumlah จำนวน الكمية كمية العدد عدد כמות',
  packets:
    'beutel tute tuten packchen packung packungen sachet sachets paquet paquets bolsa bolsas paquete paquetes ' +
    'bustina bustine sacchetti pacote pacotes saquinhos zakje zakjes zakken pakjes woreczki torebki saszetki ' +
    'paczki sacky sacku pytlicky pasar posar poser paket paketler poset пакет пакеты пакетов пакетики pussi ' +
    'pussit tasak tasakok punga pungi plic plicuri σακουλακια 包数 包數 袋数 袋數 小包 봉지 봉지수 봉투 túi gói kantong bungkus ' +
    'ถุง الأكياس أكياس שקיות',
});

function wordsOf(texts: Record<SheetField, string>): Record<SheetField, ReadonlySet<string>> {
  const sets = SHEET_FIELDS.map((field) => [field, new Set(texts[field].split(' ').map(plain))]);
  return Object.fromEntries(sets) as Record<SheetField, ReadonlySet<string>>;
}

export function emptyMapping(): ColumnMapping {
  return Object.fromEntries(SHEET_FIELDS.map((field) => [field, null])) as ColumnMapping;
}

/** What is longer heads no column. */
const LONGEST_HEADING = 120;

/** How well a heading names a field, 0 (not at all) to 1 (the very word). Units and other additions do no harm. */
function headingScore(heading: string, field: SheetField): number {
  if (heading.length > LONGEST_HEADING) return 0;
  const words = HEADINGS[field];
  const rank = (text: string) => {
    const word = plain(text);
    const at = words.indexOf(word);
    if (at >= 0) return 1 - at * 0.03;
    return word !== '' && ABROAD[field].has(word) ? 0.6 : 0;
  };
  const whole = rank(heading);
  if (whole > 0) return whole;
  // “Qty (pcs)”, “Drills / needed”: what stands in brackets or behind a sign is an addition.
  const bare = rank(heading.replace(/[([{/:,（【／：，].*$/, ''));
  if (bare > 0) return bare * 0.95;
  const parts = heading.split(/[^\p{L}\d#]+/u).filter((part) => part !== '');
  return parts.length > 1 ? Math.max(0, ...parts.map(rank)) * 0.6 : 0;
}

/** Whether a row is a header: how many of its cells name a field. */
export function headingsIn(cells: readonly string[]): number {
  return cells.filter((cell) => SHEET_FIELDS.some((field) => headingScore(cell, field) > 0.5)).length;
}

/** Content that makes a heading mean something else, unless it is the surest one. */
const CONTRADICTED = -2;

/** How much the content of a column looks like a field: 1 surely, −1 it cannot be by itself. */
function contentScore(values: readonly string[], field: SheetField, all: Content): number {
  const filled = values.filter((value) => value !== '');
  if (filled.length === 0) return 0;
  const share = (fits: (value: string) => boolean) => filled.filter(fits).length / filled.length;
  const whole = share((value) => /^\d+$/.test(value));
  const distinct = new Set(filled).size / filled.length;
  const counting =
    filled.length > 1 && filled.every((value, i) => i === 0 || Number(value) === Number(filled[i - 1]) + 1);
  switch (field) {
    case 'keyNumber':
      return counting ? 0.9 : distinct < 0.9 ? -1 : 0;
    case 'symbol':
      return share((value) => [...value].length <= 2) > 0.8 && whole < 0.8 ? 0.8 : whole > 0.9 ? -0.4 : -1;
    case 'hex':
      // Three signs without # are a code like B52 before they are a colour.
      return share((value) => readHex(value) !== null && /^#|^(?=.*[a-f]).{6}$/i.test(value)) > 0.7 ? 1 : -1;
    case 'finish':
      if (share((value) => readFinish(value) !== null) > 0.8) return 0.8;
      // “Type” may head square and round: where no word is a finish, it heads something else.
      return filled.some((value) => readFinish(value) !== null) ? -1 : CONTRADICTED;
    case 'code':
      if (share((value) => value.length <= 12 && /\d/.test(value)) < 0.8 || distinct < 0.7) return -1;
      return counting ? -0.3 : 0.5 + 0.2 * distinct;
    case 'name':
      return share((value) => /\p{L}{3}/u.test(value)) > 0.7 ? 0.7 : -1;
    case 'neededDrills':
      if (!areAmounts(filled)) return -1;
      return counting ? -0.6 : all.largest !== null && meanOf(filled) >= all.largest ? 0.6 : 0.2;
    case 'packets':
      if (!areAmounts(filled)) return -1;
      return !counting && largest(filled.map((value) => readAmount(value) ?? 0)) <= 60 ? 0.3 : -0.5;
  }
}

/** What the columns have in common: the largest mean of a column of amounts. */
interface Content {
  largest: number | null;
}

/** Whether the values of a column are amounts, but for a slip of the pen here and there. */
export function areAmounts(values: readonly string[]): boolean {
  const filled = values.filter((value) => value !== '');
  return filled.filter((value) => readAmount(value) !== null).length >= 0.9 * filled.length;
}

function meanOf(values: readonly string[]): number {
  return values.reduce((sum, value) => sum + (readAmount(value) ?? 0), 0) / Math.max(1, values.length);
}

/** Which column holds which field, and which of these are only a guess by what stands in them. */
export interface ColumnGuess {
  mapping: ColumnMapping;
  guessed: SheetField[];
}

/** A column is taken for a field from this score on; a heading alone is enough, and so is telling content. */
const TAKEN_FROM = 0.5;

/** What is guessed by content: under a heading that says something else, only what a sheet cannot do without. */
const GUESSED: Record<'headed' | 'bare', ReadonlySet<SheetField>> = {
  headed: new Set(['code', 'neededDrills', 'hex']),
  bare: new Set(['keyNumber', 'symbol', 'code', 'name', 'hex', 'finish', 'neededDrills']),
};

/**
 * Finds the column of each field by its heading and by what stands in it; a column serves one field only, and the
 * surest pairs go first.
 * @param header null where the table has none
 * @param rows cells below it
 */
export function guessColumns(
  header: readonly string[] | null,
  rows: readonly (readonly string[])[],
): ColumnGuess {
  const width = largest([header?.length ?? 0, ...rows.map((row) => row.length)]);
  const columns = Array.from({ length: width }, (_, i) => rows.map((row) => row[i] ?? ''));
  // Codes are numbers too, but not amounts: the column that is named so, else the first that looks so.
  const named = columns.findIndex((_, i) => headingScore(header?.[i] ?? '', 'code') > 0.5);
  const codes =
    named >= 0 ? named : columns.findIndex((values) => contentScore(values, 'code', { largest: null }) > 0);
  const means = columns.flatMap((values, i) => {
    const filled = values.filter((value) => value !== '');
    return filled.length > 0 && i !== codes && areAmounts(filled) ? [meanOf(filled)] : [];
  });
  const all: Content = { largest: means.length > 0 ? largest(means) : null };
  // A sheet has codes and drills: where nothing else can be the codes, those like AB1234 are no colours.
  const candidates = columns.filter((values) => contentScore(values, 'code', all) > 0);
  const isNeededAsCode = (values: readonly string[]) => {
    const others = candidates.filter((each) => each !== values);
    return !values.some((value) => value.startsWith('#')) && others.length < 2 && others.every(areAmounts);
  };
  const pairs = columns.flatMap((values, column) =>
    SHEET_FIELDS.flatMap((field) => {
      const named = header === null ? 0 : headingScore(header[column] ?? '', field);
      const content = contentScore(values, field, all);
      const looks = field === 'hex' && content > 0 && named === 0 && isNeededAsCode(values) ? -1 : content;
      // A heading that is plainly contradicted by what stands below it is none.
      if (named === 0 && (looks < TAKEN_FROM || !GUESSED[header?.[column] ? 'headed' : 'bare'].has(field)))
        return [];
      if (looks === CONTRADICTED && named < 1) return [];
      const score = named * 2 + looks * (named > 0 ? 0.5 : 1);
      return score >= TAKEN_FROM ? [{ field, column, score, named: named > 0 }] : [];
    }),
  );
  pairs.sort((a, b) => b.score - a.score || a.column - b.column);
  const mapping = emptyMapping();
  const guessed: SheetField[] = [];
  const taken = new Set<number>();
  for (const { field, column, named } of pairs) {
    if (mapping[field] !== null || taken.has(column)) continue;
    mapping[field] = column;
    taken.add(column);
    if (!named) guessed.push(field);
  }
  return { mapping, guessed };
}
