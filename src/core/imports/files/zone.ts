import { parseAddress } from '../../address';
import { type FoundFile, type LeftOut, addressTable, filled } from './read-file';

/** A zone in the master file format (RFC 1035 section 5): its names with addresses. */

interface Entry {
  readonly line: number;
  /** Does it begin with the name of an owner, and not with white space? */
  readonly owned: boolean;
  readonly words: readonly string[];
  readonly note: string;
}

/** Entries without comments; parentheses join lines. */
function entriesOf(text: string): Entry[] {
  const entries: Entry[] = [];
  let open: (Entry & { words: string[] }) | null = null;
  text.split('\n').forEach((raw, i) => {
    // A semicolon within quotes begins no comment.
    const said = /^(?:[^";]|"(?:[^"\\]|\\.)*")*/.exec(raw)![0];
    const words = said.replaceAll(/[()]/g, ' $& ').split(/\s+/).filter(Boolean);
    const entry = open ?? {
      line: i + 1,
      owned: /^\S/.test(raw),
      words: [],
      note: raw.slice(said.length + 1).trim(),
    };
    entry.words.push(...words.filter((word) => word !== '(' && word !== ')'));
    const depth =
      (open ? 1 : 0) + words.filter((w) => w === '(').length - words.filter((w) => w === ')').length;
    open = depth > 0 ? entry : null;
    if (!open && entry.words.length > 0) entries.push(entry);
  });
  return entries;
}

const CLASS_OR_TTL = /^(IN|CH|HS|\d+[smhdw]?)$/i;

export function readZone(text: string): FoundFile {
  const leftOut: LeftOut[] = [];
  const rows: string[][] = [];
  let owner = '';
  for (const { line, owned, words, note } of entriesOf(text)) {
    if (words[0]!.startsWith('$')) {
      if (!/^\$(ORIGIN|TTL)$/i.test(words[0]!)) leftOut.push({ line, text: words.join(' ') });
      continue;
    }
    if (owned) owner = words[0]!;
    const rest = words.slice(owned ? 1 : 0).filter((word, i, all) => {
      const before = all.slice(0, i).every((one) => CLASS_OR_TTL.test(one));
      return !(before && CLASS_OR_TTL.test(word));
    });
    const [type = '', value = ''] = rest;
    const name = owner.replace(/\.$/, '').split('.')[0]!;
    const isHost = /^(A|AAAA)$/i.test(type) && parseAddress(value) !== null && name !== '@' && name !== '*';
    if (isHost) rows.push([name, value, '', '', note]);
    else leftOut.push({ line, text: words.join(' ').slice(0, 120) });
  }
  return { what: 'a zone', tables: filled([addressTable(rows)]), leftOut };
}
