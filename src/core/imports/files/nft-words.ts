/** A ruleset of nft(8) as blocks of statements, each in words; variables and named sets are put in their places. */

export interface Statement {
  readonly line: number;
  /** Braces and commas are words of their own; quoted text is one without its quotes. */
  readonly words: readonly string[];
}
export interface Block {
  readonly head: readonly string[];
  readonly line: number;
  readonly statements: readonly Statement[];
}

interface Word {
  readonly text: string;
  readonly line: number;
}

/** Comments are left out; a line end and a semicolon both end a statement. */
function wordsOf(text: string): Word[] {
  return text.split('\n').flatMap((raw, i) => {
    const said = /^(?:[^"#]|"[^"]*")*/.exec(raw)![0].replace(/\\\s*$/, '');
    const words = [...said.matchAll(/"([^"]*)"|[{};,]|[^\s{};",]+/g)].map(([word, quoted]) => quoted ?? word);
    const goesOn = /\\\s*$/.test(raw);
    return [...words, ...(goesOn ? [] : ['\n'])].map((word) => ({ text: word, line: i + 1 }));
  });
}

const BLOCKS: ReadonlySet<string> = new Set(['table', 'chain', 'set', 'map', 'flowtable', 'counter', 'ct']);
const isEnd = (text: string): boolean => text === '\n' || text === ';';

/** The blocks of a text with the statements that stand in each itself. Blocks in blocks follow theirs. */
export function blocksOf(text: string): Block[] {
  const blocks: (Block & { statements: Statement[] })[] = [{ head: [], line: 1, statements: [] }];
  const open = [blocks[0]!];
  let words: string[] = [];
  let line = 1;
  let depth = 0;
  const end = () => {
    if (words.length > 0) open.at(-1)!.statements.push({ line, words });
    words = [];
  };
  for (const word of wordsOf(text)) {
    if (words.length === 0) line = word.line;
    if (word.text === '{' && depth === 0 && BLOCKS.has(words[0] ?? '') && !words.includes('=')) {
      const block = { head: words, line, statements: [] };
      blocks.push(block);
      open.push(block);
      words = [];
    } else if (word.text === '}' && depth === 0) {
      end();
      if (open.length > 1) open.pop();
    } else if (isEnd(word.text)) {
      // The elements of a set may run over lines.
      if (depth === 0) end();
    } else {
      depth += word.text === '{' ? 1 : word.text === '}' ? -1 : 0;
      words.push(word.text);
    }
  }
  end();
  return blocks.map((block) => ({ ...block, statements: resolved(block.statements, valuesOf(blocks)) }));
}

/** What `$name` and `@name` stand for. */
function valuesOf(blocks: readonly Block[]): ReadonlyMap<string, readonly string[]> {
  const values = new Map<string, readonly string[]>();
  for (const { head, statements } of blocks)
    for (const { words } of statements) {
      const at = words.indexOf('=');
      if (words[0] === 'define' && at === 2) values.set(`$${words[1]!}`, words.slice(3));
      if (head[0] === 'set' && words[0] === 'elements' && at === 1)
        values.set(`@${head.at(-1)!}`, words.slice(2));
    }
  return values;
}

const resolved = (
  statements: readonly Statement[],
  values: ReadonlyMap<string, readonly string[]>,
): Statement[] =>
  statements.map(({ line, words }) => ({
    line,
    words: words.flatMap((word) => values.get(word)?.flatMap((part) => values.get(part) ?? [part]) ?? [word]),
  }));
