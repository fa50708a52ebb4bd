import { BAGS_CARRY } from '../canvas/canvas';
import { BAG_MEASURES, BAG_ORIGINS } from '../checkin/bag';
import { COLOUR_ORDERS } from '../codes/colourOrder';
import { FINISHES } from '../colour/finish';
import { SEALINGS } from '../finish/record';
import { INSPECTION_KINDS } from '../inspection/inspection';
import { ALLOT_GOALS, LEAVE_RULES } from '../kitup/allotTask';
import { SCHOOLS } from '../placing/schools';
import { DIRECTIONS, GOALS, PASSES } from '../placing/wish';
import { COVERS } from '../sections/cover';
import { HANDS } from '../sections/hand';
import { CORNERS, WORK_WAYS } from '../sections/order';

/**
 * What a column holds. `uuid` is given anew in a copy, `shared` is not; `line` is a line of the sheet, perhaps of an
 * earlier one, for ledgers keep what was; `json` is a list; `runs` are cells as in a mark; `photo` is the name of a file.
 */
type ColumnKind =
  | 'uuid'
  | 'shared'
  | 'text'
  | 'integer'
  | 'line'
  | 'number'
  | 'boolean'
  | 'moment'
  | 'json'
  | 'runs'
  | 'photo';

export interface ArchiveColumn {
  name: string;
  kind: ColumnKind;
  /** What it tells, for whoever opens the archive. */
  about: string;
  optional?: boolean;
  /** What stands in an archive that was written before there was this column; `row` is the place of the row, from 1. */
  absent?: string | number | { row: true };
  oneOf?: readonly string[];
  /** Table and column that it points at. */
  refers?: readonly [table: string, column: string];
}

/** A table of the archive; rows stand in the order in which they came about. */
export interface ArchiveTable {
  name: string;
  about: string;
  key: readonly string[];
  columns: readonly ArchiveColumn[];
  /** The version of the archive that has it from then on; left out for those that were there from the first. */
  since?: number;
}

const column = (
  name: string,
  kind: ColumnKind,
  about: string,
  more: Pick<ArchiveColumn, 'oneOf' | 'refers' | 'absent'> = {},
): ArchiveColumn => ({ name, kind, about, ...more });
const optional = (
  name: string,
  kind: ColumnKind,
  about: string,
  more: Pick<ArchiveColumn, 'oneOf' | 'refers'> = {},
): ArchiveColumn => ({ name, kind, about, optional: true, ...more });
const id = column('id', 'uuid', 'Identity of the row');
const happened = column('happened_at', 'moment', 'When it happened (UTC)');
const ofLine = column('line', 'line', 'Number of the colour');

/** Everything that belongs to a canvas, each table after those that it points at. */
export const ARCHIVE_TABLES: readonly ArchiveTable[] = [
  {
    name: 'canvas',
    about: 'The canvas itself, one row.',
    key: ['id'],
    columns: [
      id,
      column('title', 'text', 'Title'),
      column('shape', 'text', 'How the drills are cut', { oneOf: ['square', 'round'] }),
      column('pitch_mm', 'number', 'Distance between the centres of neighbouring drills, mm'),
      column('width', 'integer', 'Squares from left to right'),
      column('height', 'integer', 'Squares from top to bottom'),
      column('panels', 'integer', 'Panels side by side'),
      column('symbols_printed', 'boolean', 'Whether the canvas carries symbols'),
      column('packet_drills', 'integer', 'Drills in an ordinary bag'),
      optional('bags_carry', 'text', 'What stands on its bags', { oneOf: BAGS_CARRY }),
      column('no_cases', 'boolean', 'Whether it is worked straight from its bags', { absent: 'false' }),
      column('created_at', 'moment', 'When it came onto the shelf (UTC)'),
    ],
  },
  {
    name: 'legend_line',
    about: 'The colour list, a row a colour.',
    key: ['line'],
    columns: [
      column('line', 'line', 'Number of the colour, never used again; what the chart’s squares name'),
      column('position', 'integer', 'Place in the list, from 1', { absent: { row: true } }),
      column('origin', 'text', 'Whether the sheet lists it, or the user chose it', {
        oneOf: ['sheet', 'own'],
        absent: 'sheet',
      }),
      column('key_number', 'text', 'Key number as printed'),
      optional('symbol', 'text', 'Printed symbol'),
      column('code', 'text', 'Colour code'),
      column('name', 'text', 'Colour name'),
      optional('hex', 'text', 'sRGB as #rrggbb'),
      column('finish', 'text', 'Surface of the drills', { oneOf: FINISHES }),
      column('needed_drills', 'integer', 'Drills needed'),
      column('packets', 'integer', 'Bags that the sheet names'),
    ],
  },
  {
    name: 'section_plan',
    about: 'The grid of sections before the first cut of section_cut.',
    key: ['block_columns'],
    columns: [
      column('block_columns', 'integer', 'Columns of a section'),
      column('block_rows', 'integer', 'Rows of a section'),
    ],
  },
  {
    name: 'section_cut',
    about:
      'The ledger of cuts into sections; the newest that stands is in use, before the first the grid above.',
    key: ['id'],
    since: 5,
    columns: [
      id,
      happened,
      optional('block_columns', 'integer', 'Of a grid: columns of a section'),
      optional('block_rows', 'integer', 'Of a grid: rows of a section'),
      optional(
        'pieces',
        'text',
        'The sections one by one: x,y,width,height with + between rectangles, ; between sections',
      ),
      column('sections', 'integer', 'Number of sections'),
      column('way', 'text', 'Order of the work', { oneOf: WORK_WAYS }),
      column('corner', 'text', 'Where that begins', { oneOf: CORNERS }),
      optional('focal_x', 'number', 'Middle of the focal part, columns from the left'),
      optional('focal_y', 'number', 'Middle of the focal part, rows from the top'),
      column('made_for', 'text', 'The panels that it is made for, written like one section'),
      optional('undoes', 'uuid', 'Cut that this one undoes', { refers: ['section_cut', 'id'] }),
      optional('redoes', 'uuid', 'Cut that this one makes again', { refers: ['section_cut', 'id'] }),
    ],
  },
  {
    name: 'section_wish',
    about: 'How the user works on the canvas: hand, cover, light pad and so on.',
    key: ['hand'],
    since: 5,
    columns: [
      column('minutes', 'number', 'Minutes of a sitting'),
      column('hand', 'text', 'The hand that lays', { oneOf: HANDS }),
      column('cover', 'text', 'What lies over the adhesive', { oneOf: COVERS }),
      column('sheet_width_mm', 'number', 'Width of a sheet, mm'),
      column('sheet_height_mm', 'number', 'Height of a sheet, mm'),
      column('overlap_mm', 'number', 'How far sheets lie over one another, mm'),
      optional('roll_mm', 'number', 'Width of the roll that sheets are cut from, mm'),
      column('pad', 'text', 'Light pad: none, own, or a paper size'),
      column('pad_long_mm', 'number', 'Long side of an own light pad, mm'),
      column('pad_short_mm', 'number', 'Short side of an own light pad, mm'),
      optional('reach_mm', 'number', 'How far the arm reaches, mm'),
      optional('window_mm', 'number', 'Height that a frame shows, mm'),
    ],
  },
  {
    name: 'placing_wish',
    about: 'How the user likes to lay on the canvas: rows and columns, passes, order of colours and so on.',
    key: ['school'],
    since: 6,
    columns: [
      column('goal', 'text', 'What a plan makes least of', { oneOf: GOALS }),
      column('direction', 'text', 'Rows and columns mixed, or one of them', { oneOf: DIRECTIONS }),
      column('turn_worth', 'integer', 'Placements that a turn must save'),
      column('staggered', 'boolean', 'Whether ends of bars are staggered'),
      column('passes', 'text', 'All at once, every second row first, or a checkerboard', { oneOf: PASSES }),
      column('tip_by_tip', 'boolean', 'Whether all bars of one tip are laid before it is changed'),
      optional('singles_above', 'number', 'Lightness L* above which colours are laid one by one'),
      optional('longest', 'integer', 'Drills of the longest bar'),
      column('edge_singles', 'boolean', 'Whether squares beside the next section are laid one by one'),
      column('school', 'text', 'Order of the colours', { oneOf: SCHOOLS }),
      column('own_order', 'json', 'Lines of the user’s own order'),
    ],
  },
  {
    name: 'panel_plan',
    about: 'How the chart is cut into panels.',
    key: ['overlap'],
    columns: [
      column('column_cuts', 'json', 'Columns after which it is cut'),
      column('row_cuts', 'json', 'Rows after which it is cut'),
      column('overlap', 'integer', 'Squares that neighbouring panels share'),
      column('margin_mm', 'number', 'Bare canvas around each panel, mm'),
      optional('reach_width_cm', 'number', 'What the user reaches across, cm'),
      optional('reach_height_cm', 'number', 'What the user can hang, cm'),
    ],
  },
  {
    name: 'sitting',
    about: 'Time at the bench.',
    key: ['id'],
    columns: [id, column('started_at', 'moment', 'Start (UTC)')],
  },
  {
    name: 'sitting_end',
    about: 'Ends of sittings, with their notes.',
    key: ['sitting_id'],
    columns: [
      column('sitting_id', 'uuid', 'The sitting', { refers: ['sitting', 'id'] }),
      column('ended_at', 'moment', 'End (UTC)'),
      column('note', 'text', 'Note'),
    ],
  },
  {
    name: 'sitting_edit',
    about: 'Corrections of sittings; the last of each holds.',
    key: ['id'],
    since: 3,
    columns: [
      id,
      happened,
      column('sitting_id', 'uuid', 'The sitting', { refers: ['sitting', 'id'] }),
      column('started_at', 'moment', 'Start (UTC)'),
      optional('ended_at', 'moment', 'End (UTC); empty while it runs'),
      column('note', 'text', 'Note'),
      column('removed', 'boolean', 'It was a mistake'),
    ],
  },
  {
    name: 'mark',
    about: 'The ledger of drills laid and lifted; what is laid follows from it.',
    key: ['id'],
    columns: [
      id,
      optional('sitting_id', 'uuid', 'The sitting', { refers: ['sitting', 'id'] }),
      happened,
      column('kind', 'text', 'Laid or lifted', { oneOf: ['lay', 'lift'] }),
      column(
        'cells',
        'runs',
        'Squares as start and length, again and again; a square is row × width + column, from 0',
      ),
      column('drills', 'integer', 'Number of those squares'),
      column('before', 'boolean', 'Laid before the canvas was kept here; counts for no day', {
        absent: 'false',
      }),
      optional('undoes', 'uuid', 'Mark that this one undoes', { refers: ['mark', 'id'] }),
      optional('redoes', 'uuid', 'Mark that this one lays again', { refers: ['mark', 'id'] }),
      optional(
        'popped',
        'boolean',
        'Of a lift: whether the drills came off by themselves; empty where nobody said',
      ),
    ],
  },
  {
    name: 'progress_wish',
    about: 'By when the canvas shall be done.',
    key: ['finish_by'],
    since: 7,
    columns: [happened, column('finish_by', 'text', 'Day, YYYY-MM-DD')],
  },
  {
    name: 'canvas_photo',
    about: 'Photos of the work.',
    key: ['id'],
    since: 7,
    columns: [
      id,
      happened,
      column('taken_on', 'text', 'Day on which it was taken, YYYY-MM-DD'),
      column('note', 'text', 'Note'),
      column('photo', 'photo', 'The photo, JPEG'),
      optional('removed_at', 'moment', 'When it was removed (UTC); empty while it is kept'),
    ],
  },
  {
    name: 'reading_photo',
    about: 'Photos from which the chart is read.',
    key: ['id'],
    since: 8,
    columns: [
      id,
      happened,
      column('kind', 'text', 'Whether it shows squares or the colour list', { oneOf: ['canvas', 'list'] }),
      column('name', 'text', 'Name of its file'),
      column('width', 'integer', 'Pixels from left to right'),
      column('height', 'integer', 'Pixels from top to bottom'),
      optional('photo', 'photo', 'The photo, JPEG; empty where it is no longer kept'),
      optional(
        'corners',
        'text',
        'Corners of its squares in pixels, clockwise from the upper left: x,y x,y x,y x,y',
      ),
      optional('columns', 'integer', 'Columns of squares between the corners'),
      optional('rows', 'integer', 'Rows of squares between the corners'),
      optional('at_column', 'integer', 'Column of its upper left square on the canvas, from 0'),
      optional('at_row', 'integer', 'Row of its upper left square on the canvas, from 0'),
      column('pins', 'text', 'Corners of squares set by hand: column,row,x,y with spaces between'),
      optional('removed_at', 'moment', 'When it was removed (UTC); empty while it is used'),
    ],
  },
  {
    name: 'reading_result',
    about: 'What each photo was read as; numbers as base64 of little-endian arrays, row by row.',
    key: ['id'],
    since: 8,
    columns: [
      id,
      column('photo_id', 'uuid', 'The photo', { refers: ['reading_photo', 'id'] }),
      happened,
      column('columns', 'integer', 'Columns of squares'),
      column('rows', 'integer', 'Rows of squares'),
      column('cell_px', 'number', 'Pixels of a square in the photo'),
      column('cells', 'text', 'Number of the colour of each square, two bytes each'),
      column('others', 'text', 'The colour that it may be else, two bytes each, 0 for none'),
      column('doubt', 'text', 'Chance that it is wrong in 65,535ths, two bytes each'),
      column('torn', 'text', '1 in a region that ends where nothing ends, two bytes each, or empty', {
        absent: '',
      }),
      column(
        'mesh',
        'text',
        'Where the corners of squares lie in the photo: all x, then all y, four bytes each',
      ),
      column('photo', 'photo', 'Its squares as a plain grid, JPEG'),
    ],
  },
  {
    name: 'reading_sample',
    about: 'How the colours look in print.',
    key: ['line'],
    since: 8,
    columns: [
      ofLine,
      happened,
      column('origin', 'text', 'From the printed list, or from squares that were pointed at', {
        oneOf: ['list', 'example'],
      }),
      column('glyph', 'text', 'The symbol: 16 × 16 numbers of four bytes, base64'),
      column('tint', 'json', 'Linear light of the tint: red, green, blue'),
    ],
  },
  {
    name: 'reading_answer',
    about: 'The ledger of what somebody said of squares that were in doubt.',
    key: ['id'],
    since: 8,
    columns: [
      id,
      happened,
      column('answers', 'json', 'Column, row (from 0) and colour of each square'),
      optional('undoes', 'uuid', 'The entry that this one undoes', { refers: ['reading_answer', 'id'] }),
    ],
  },
  {
    name: 'reading_chart',
    about: 'The photos that the chart was read from.',
    key: ['happened_at'],
    since: 8,
    columns: [
      happened,
      column('photos', 'json', 'Their ids, in order'),
      column('columns', 'integer', 'Columns of the canvas at that time'),
      column(
        'origins',
        'text',
        'Photo of each square, run by run: photo×squares, from 1 in their order, 0 for none',
      ),
    ],
  },
  {
    name: 'finish_entry',
    about: 'The end of the canvas, as it was told; the last row holds.',
    key: ['id'],
    since: 7,
    columns: [
      id,
      happened,
      optional('started_on', 'text', 'Day on which it was begun, YYYY-MM-DD'),
      optional('finished_on', 'text', 'Day on which it was done, YYYY-MM-DD'),
      optional('minutes', 'integer', 'Time at the bench, where it was told by hand'),
      column('checked', 'json', 'Steps of the last walk that are done'),
      column('sealing', 'text', 'Whether it is sealed', { oneOf: SEALINGS }),
      column('border_mm', 'number', 'Canvas left around the picture, mm'),
      optional('frame_width_mm', 'number', 'Width of the frame, mm'),
      optional('frame_height_mm', 'number', 'Height of the frame, mm'),
      column('notes', 'text', 'Notes'),
    ],
  },
  {
    name: 'area_tick',
    about:
      'Without a chart: colours that are done in a piece of the canvas; of two rows the later one counts.',
    key: ['id'],
    since: 4,
    columns: [
      id,
      happened,
      ofLine,
      column('x', 'integer', 'First column of the piece, from 0'),
      column('y', 'integer', 'First row of the piece, from 0'),
      column('width', 'integer', 'Columns'),
      column('height', 'integer', 'Rows'),
      optional('rects', 'json', 'The rectangles, where it is not one'),
      column('done', 'boolean', 'Whether the colour is done there'),
    ],
  },
  {
    name: 'bag_entry',
    about: 'The ledger of bags counted and undone.',
    key: ['id'],
    columns: [
      id,
      happened,
      column('kind', 'text', 'What happened', {
        oneOf: ['count', 'take back', 'assign', 'change', 'remove'],
      }),
      optional('line', 'line', 'Number of the colour; empty for a bag that is not in the list'),
      column('label', 'text', 'What stands on the bag'),
      column('drills', 'integer', 'Drills in it'),
      column('how', 'text', 'How they are known', { oneOf: BAG_MEASURES }),
      optional('spread', 'number', 'Standard uncertainty of the bag by itself, drills'),
      column('shared_errors', 'json', 'Errors in common with other bags: source, and spread in drills', {
        absent: '[]',
      }),
      column('origin', 'text', 'Where the bag came from', { oneOf: BAG_ORIGINS, absent: 'kit' }),
      optional('undoes', 'uuid', 'Entry that this one undoes', { refers: ['bag_entry', 'id'] }),
      optional('redoes', 'uuid', 'Entry that this one counts again', { refers: ['bag_entry', 'id'] }),
      optional('subject', 'uuid', 'Bag that the entry is about', { refers: ['bag_entry', 'id'] }),
    ],
  },
  {
    name: 'trash_record',
    about: 'Pieces that went through the hand, and those thrown out.',
    key: ['id'],
    columns: [
      id,
      happened,
      column('handled', 'integer', 'Pieces handled'),
      column('thrown', 'integer', 'Pieces thrown out'),
      optional('replaces', 'uuid', 'Record whose place this one takes', { refers: ['trash_record', 'id'] }),
      column('removed', 'boolean', 'It was a mistake', { absent: 'false' }),
    ],
  },
  {
    name: 'request_state',
    about: 'What was asked of the seller.',
    key: ['id'],
    columns: [
      id,
      ofLine,
      happened,
      column('state', 'text', 'State', { oneOf: ['asked', 'promised', 'arrived'] }),
    ],
  },
  {
    name: 'ran_out',
    about: 'Colours that ran out at the bench.',
    key: ['id'],
    since: 2,
    columns: [
      id,
      ofLine,
      happened,
      column('left_drills', 'integer', 'Drills that were left then'),
      column('to_lay', 'integer', 'Drills that were still to lay then'),
    ],
  },
  {
    name: 'inspection_entry',
    about: 'The log of the canvas.',
    key: ['id'],
    columns: [
      id,
      happened,
      column('kind', 'text', 'What was looked at', { oneOf: INSPECTION_KINDS.map(({ key }) => key) }),
      column('note', 'text', 'Note'),
      optional('width_cm', 'number', 'Measured width, cm'),
      optional('height_cm', 'number', 'Measured height, cm'),
      optional('photo', 'photo', 'File with the photo'),
      optional('replaces', 'uuid', 'Entry whose place this one takes', {
        refers: ['inspection_entry', 'id'],
      }),
    ],
  },
  {
    name: 'inspection_withdrawal',
    about: 'Entries of that log that were taken out again.',
    key: ['entry_id'],
    columns: [column('entry_id', 'uuid', 'The entry', { refers: ['inspection_entry', 'id'] }), happened],
  },
  {
    name: 'chart_edit',
    about: 'The ledger of repairs; the chart has them already.',
    key: ['id'],
    columns: [
      id,
      happened,
      column('kind', 'text', 'What for', { oneOf: ['repair', 'finish'] }),
      column('edits', 'json', 'What was set: squares as runs, and their colour'),
      column('before', 'json', 'What stood there'),
      optional('moved', 'integer', 'Drills that a finish took off the count of its colour'),
      optional('undoes', 'uuid', 'Change that this one undoes', { refers: ['chart_edit', 'id'] }),
      optional('redoes', 'uuid', 'Change that this one makes again', { refers: ['chart_edit', 'id'] }),
    ],
  },
  {
    name: 'sheet_edit',
    about: 'The ledger of corrections of the colour list and of the canvas; both have them already.',
    key: ['id'],
    since: 2,
    columns: [
      id,
      happened,
      column('kind', 'text', 'What was corrected', { oneOf: ['list', 'canvas'] }),
      column('before', 'json', 'What stood there: the list of colours, or one canvas'),
      column('after', 'json', 'What stands there since'),
      optional('undoes', 'uuid', 'Correction that this one undoes', { refers: ['sheet_edit', 'id'] }),
      optional('redoes', 'uuid', 'Correction that this one makes again', { refers: ['sheet_edit', 'id'] }),
    ],
  },
  {
    name: 'symbol_drawing',
    about: 'Symbols drawn by hand.',
    key: ['code', 'finish'],
    columns: [
      column('code', 'text', 'Colour code'),
      column('finish', 'text', 'Surface of the drills', { oneOf: FINISHES }),
      column('path', 'text', 'SVG path in a box of 100 × 100'),
    ],
  },
  {
    name: 'lid_mark',
    about: 'Lids that warn of another colour.',
    key: ['line'],
    columns: [ofLine, column('other_line', 'line', 'The other')],
  },
  {
    name: 'storage',
    about: 'The cases that hold this canvas’s drills; they belong to the user.',
    key: ['id'],
    columns: [
      column('id', 'shared', 'Identity of the case'),
      column('name', 'text', 'Name'),
      column('packing_share', 'number', 'Share of the room that poured drills fill'),
      column('trays', 'json', 'Trays with their slots'),
      column('created_at', 'moment', 'When it was drawn (UTC)'),
    ],
  },
  {
    name: 'kitup_plan',
    about: 'How the colours are kept.',
    key: ['colour_order'],
    columns: [
      column('colour_order', 'text', 'Order of the colours', { oneOf: COLOUR_ORDERS }),
      column('leave_rule', 'text', 'Which colours stay in bags', { oneOf: LEAVE_RULES }),
      column('goals', 'json', `Goals in their order: ${ALLOT_GOALS.join(', ')}`),
      column('results', 'json', 'What the plan reached'),
      column('several', 'boolean', 'Whether pots left over take what overflows', { absent: 'false' }),
    ],
  },
  {
    name: 'kitup_storage',
    about: 'Cases of the plan, in the order in which they are filled.',
    key: ['storage_id'],
    columns: [
      column('storage_id', 'shared', 'The case', { refers: ['storage', 'id'] }),
      column('position', 'integer', 'Place in that order'),
    ],
  },
  {
    name: 'allotment',
    about: 'Colours in their slots.',
    key: ['line', 'nth'],
    columns: [
      ofLine,
      column('nth', 'integer', 'Which of the colour’s pots, from 1', { absent: 1 }),
      column('storage_id', 'shared', 'The case', { refers: ['storage', 'id'] }),
      column('slot', 'text', 'The slot'),
      column('locked', 'boolean', 'Whether the user put it there'),
    ],
  },
  {
    name: 'pot_event',
    about: 'The ledger of pots filled and put away.',
    key: ['id'],
    columns: [
      id,
      ofLine,
      happened,
      column('kind', 'text', 'What happened', { oneOf: ['fill', 'take back', 'put away', 'amount'] }),
      column('drills', 'integer', 'Drills that went into the stash'),
      optional('undoes', 'uuid', 'Event that this one undoes', { refers: ['pot_event', 'id'] }),
      optional('redoes', 'uuid', 'Event that happened again', { refers: ['pot_event', 'id'] }),
    ],
  },
];

/** Tables of the pots: where a copy of the canvas would claim pots that are filled once only. */
export const POT_TABLES: ReadonlySet<string> = new Set([
  'storage',
  'kitup_plan',
  'kitup_storage',
  'allotment',
  'pot_event',
]);
