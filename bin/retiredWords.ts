/** A word that is not used on screens, in prints and docs, what stands there instead, and where it is right all the same. */
export interface Retired {
  pattern: RegExp;
  instead: string;
  except?: RegExp;
}

/** One word for one thing; what a screen calls otherwise sends people looking for two things. */
export const RETIRED: Retired[] = [
  { pattern: /\bcloths?\b|\bfabric\b/i, instead: 'canvas' },
  {
    pattern: /\bcells?\b/i,
    instead: 'square',
    except:
      /grid|spreadsheet|stitch|paste|[a-z_]+\.csv|\bUTC\b|row × width|Run \{|row of the list|next cell|same cell/i,
  },
  { pattern: /\blegend\b/i, instead: 'colour list', except: /oculentChart|"legend"/ },
  {
    pattern: /\bline of the (colour )?(list|sheet)\b|\bon no line\b|\blines of the sheet\b/i,
    instead: 'colour, or row',
  },
  { pattern: /\bpackets?\b/i, instead: 'bag', except: /packet size/i },
  { pattern: /\bsenders?\b|\bsuppliers?\b/i, instead: 'seller', except: /supplied/i },
  { pattern: /\btrash\b/i, instead: 'bad drills' },
  { pattern: /\b(take|took|taken|takes) back\b/i, instead: 'Undo, or Lift' },
  { pattern: /\bgive (this case )?away\b|\bwithdraw\b|\brub out\b/i, instead: 'Delete, or Erase' },
  { pattern: /\b(square|cell) in hand\b/i, instead: 'the marked square' },
  { pattern: /\bat rest\b|\bcome to rest\b/i, instead: 'steady, or settled' },
  { pattern: /\bgives? way to\b/i, instead: 'say which one wins' },
  { pattern: /\banew\b/i, instead: 'again' },
  { pattern: /\bparted by\b/i, instead: 'separated by' },
  { pattern: /\bshort by\b/i, instead: '140 missing' },
  { pattern: /\blacks?\b|\blacking\b/i, instead: 'is missing' },
  { pattern: /\bunrolling\b|\badding up\b/i, instead: 'Loading…' },
  { pattern: /\b1 (bags|drills|colours|sections|squares|rows|files)\b/, instead: 'one, without an s' },
];
