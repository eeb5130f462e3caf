import type { FoundFile, LeftOut } from './read-file';
import { filled } from './read-file';
import { type Statement, blocksOf } from './nft-words';

/**
 * A ruleset of nftables, as far as zones, cells and rules can say it: what the forward chains let through and what they refuse, from whom
 * to whom and on which ports. In a plan rules stand above cells, so that a refusal counts for what is let through above it as well: never
 * more is let through than the ruleset does. Nothing is taken below a line that is not understood and may refuse somebody.
 */

/** What a rule matches on, and what it does with it. */
interface Rule {
  readonly from: readonly string[];
  readonly to: readonly string[];
  readonly services: readonly string[];
  readonly verdict: 'accept' | 'refuse' | null;
}

/** Words of a value: a set in braces, or one word. Null where it is negated. */
function valueAt(words: readonly string[], at: number): { values: readonly string[]; next: number } | null {
  if (words[at] === '!=' || words[at] === undefined) return null;
  const start = words[at] === '==' ? at + 1 : at;
  if (words[start] !== '{') return { values: [words[start]!], next: start + 1 };
  const end = words.indexOf('}', start);
  if (end < 0) return null;
  return { values: words.slice(start + 1, end).filter((word) => word !== ','), next: end + 1 };
}

/** Lists of words may be written with commas between and no braces: `established,related`. */
function skipList(words: readonly string[], at: number): number {
  let next = at + 1;
  while (words[next] === ',') next += 2;
  return next;
}

const PING: ReadonlySet<string> = new Set(['echo-request', '8', '128']);

/** Null where something in it is not understood. */
function ruleIn(words: readonly string[]): Rule | null {
  const [from, to, services]: [string[], string[], string[]] = [[], [], []];
  let verdict: Rule['verdict'] = null;
  let protocols: readonly string[] = [];
  let at = 0;
  while (at < words.length) {
    const [one = '', two = ''] = [words[at], words[at + 1]];
    if (one === 'meta' || one === 'counter') {
      at += one === 'meta' ? 1 : two === 'packets' ? 5 : 1;
    } else if (/^[io]if(name)?$/.test(one) || (/^ip6?$/.test(one) && /^[sd]addr$/.test(two))) {
      const value = valueAt(words, at + (one.startsWith('ip') ? 2 : 1));
      if (!value) return null;
      const side = one.startsWith('i') && (one.startsWith('iif') || two === 'saddr') ? from : to;
      side.push(value.values.join(' | '));
      at = value.next;
    } else if (/^(tcp|udp|th)$/.test(one) && two === 'dport') {
      const value = valueAt(words, at + 2);
      if (!value || (one === 'th' && protocols.length === 0)) return null;
      for (const protocol of one === 'th' ? protocols : [one])
        services.push(...value.values.map((port) => `${protocol} ${port}`));
      at = value.next;
      protocols = [];
    } else if (/^icmp(v6)?$/.test(one) && two === 'type') {
      const value = valueAt(words, at + 2);
      if (!value || !value.values.every((type) => PING.has(type))) return null;
      services.push('ping');
      at = value.next;
    } else if (one === 'l4proto' || (one === 'ip' && two === 'protocol')) {
      const value = valueAt(words, at + (one === 'ip' ? 2 : 1));
      if (!value || !value.values.every((protocol) => /^(tcp|udp)$/.test(protocol))) return null;
      protocols = value.values;
      at = value.next;
    } else if (one === 'log' || one === 'comment') {
      at += one === 'comment' ? 2 : 1;
      while (one === 'log' && /^(prefix|level|group)$/.test(words[at] ?? '')) at += 2;
    } else if (one === 'accept' || one === 'drop' || one === 'reject') {
      verdict = one === 'accept' ? 'accept' : 'refuse';
      at = one === 'reject' ? Math.max(at + 1, words.indexOf('comment', at)) : at + 1;
    } else return null;
  }
  // Any port of a protocol is no service of a plan.
  return protocols.length > 0 ? null : { from, to, services, verdict };
}

/** Answers to what was let through, and what is broken: every box that keeps track does so by itself. */
const isOfTracking = ({ words }: Statement): boolean =>
  words[0] === 'ct' && words[1] === 'state' && /^(accept|drop)$/.test(words[skipList(words, 2)] ?? '');

interface Chain {
  readonly rows: string[][];
  readonly leftOut: LeftOut[];
}

function readChain(statements: readonly Statement[], { rows, leftOut }: Chain): void {
  let unknown: number | null = null;
  const leave = ({ line, words }: Statement, why = '') =>
    leftOut.push({ line, text: `${words.join(' ').slice(0, 120)}${why && `: ${why}`}` });
  for (const statement of statements) {
    const { words, line } = statement;
    if (words[0] === 'type' || (words[0] === 'policy' && words[1] === 'drop') || isOfTracking(statement))
      continue;
    const rule = ruleIn(words);
    const open = rule !== null && rule.verdict !== null;
    const anybody = open && rule.from.length + rule.to.length + rule.services.length === 0;
    if (!open) {
      leave(statement);
      // A line that only counts or logs stops nobody, and neither does one that lets through.
      if (rule === null && !words.includes('accept')) unknown ??= line;
    } else if (unknown !== null) leave(statement, `it stands below line ${unknown}, which nobody understood`);
    // What is let through nowhere is refused at the end anyway.
    else if (!anybody || rule.verdict === 'accept')
      rows.push([
        rule.from.join(' & '),
        rule.to.join(' & '),
        rule.services.join(', ') || 'everything',
        rule.verdict === 'accept' ? 'allow' : 'deny',
      ]);
    else break;
  }
}

export function readNft(text: string): FoundFile {
  const chain: Chain = { rows: [], leftOut: [] };
  for (const { head, line, statements } of blocksOf(text)) {
    const hook = statements.find(({ words }) => words[0] === 'type' && words.includes('hook'));
    if (head[0] === 'chain' && hook?.words[hook.words.indexOf('hook') + 1] === 'forward')
      readChain(statements, chain);
    else if (head[0] === 'chain')
      chain.leftOut.push({
        line,
        text: `chain ${head[1] ?? ''}: only what is forwarded is a matter of zones`,
      });
  }
  return {
    what: 'a ruleset of nftables',
    tables: filled([
      { kind: 'ways', title: 'who may talk', cells: [['from', 'to', 'service', 'action'], ...chain.rows] },
    ]),
    leftOut: chain.leftOut,
  };
}
