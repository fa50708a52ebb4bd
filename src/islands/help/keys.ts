/** Every key that does something, by place; single letters act only outside fields. */
export const KEYS: { place: string; keys: [key: string, does: string][] }[] = [
  {
    place: 'Everywhere',
    keys: [
      ['?', 'this list'],
      ['Ctrl+Z', 'undo at check-in, in repair and at the bench'],
      ['Ctrl+Y', 'redo'],
    ],
  },
  {
    place: 'Check-in',
    keys: [
      ['412 Enter', 'count a bag by its code'],
      ['412 x5', 'count five bags'],
      ['412 x 140', 'count a bag that holds 140'],
      ['Enter, ↓', 'with the field empty: the first or second answer to a question'],
      ['Alt+1, 2, 3', 'another bag size for the next bag'],
    ],
  },
  {
    place: 'Colour list',
    keys: [
      ['Enter', 'the next cell, and from the last one the next row'],
      ['↑ and ↓', 'the same cell of another row'],
      ['Ctrl+V', 'fill rows from a spreadsheet'],
    ],
  },
  {
    place: 'Kit-up',
    keys: [
      ['412 Enter', 'light the pot of a bag'],
      ['Enter', 'it is in, next bag'],
      ['Esc', 'leave a colour where it is'],
    ],
  },
  {
    place: 'Drawing a case or a symbol',
    keys: [
      ['arrows', 'move'],
      ['Shift+arrows', 'spread a slot, draw a line'],
      ['Enter or Space', 'draw the slot, make a dot'],
    ],
  },
  {
    place: 'On the canvas',
    keys: [
      ['arrows', 'move the marked square'],
      ['Shift+arrows', 'move the picture'],
      ['+ and −', 'nearer, farther'],
      ['0', 'the whole of it'],
      ['Esc', 'give up a stroke before you let go'],
    ],
  },
  {
    place: 'Chart from photos',
    keys: [
      ['arrows', 'move a corner by a pixel; with Shift by ten'],
      ['1, 2', 'which of two colours the framed square is'],
      ['0', 'no drill goes there'],
      ['Space', 'later'],
    ],
  },
  {
    place: 'Chart',
    keys: [
      ['123 456', 'find column and row'],
      ['12 cm 8 cm', 'find by distance from two edges'],
      ['Space', 'in repair: set the marked square, or paste there'],
      ['Ctrl+V', 'in repair: take rows from a spreadsheet'],
    ],
  },
  {
    place: 'Placing',
    keys: [
      ['Space', 'show the next placement'],
      ['Backspace', 'show the placement before'],
      ['Enter', 'lay the placement in hand'],
    ],
  },
  {
    place: 'Bench',
    keys: [
      ['Enter, Page Down', 'lay what is next: a bar or a row; at the end the next colour or section'],
      ['Page Up', 'the one before'],
      ['Space', 'lay or lift the marked square; while it speaks: pause, held down: another speed'],
      ['A', 'finish this colour in the section, and on to the next'],
      ['N and P', 'next and previous colour'],
      ['L and O', 'lift; popped'],
      ['R', 'how far a touch reaches'],
      ['X', 'one bad drill'],
      ['V and S', 'speak; say it again'],
      ['K and H', 'count along the rows; cross-hair'],
      ['T', 'start or stop the timer'],
    ],
  },
];
