'use client';

import {
  parsePrefix,
  formatPrefix,
  networkOf,
  formatAddress,
  parseAddress,
  parseAddressIn,
  widthOf,
  familyOf,
} from '@/core/address';
import { type Call, Refusal, badInput, type Subnet, type TableName, recordIn, toWire } from '@/core/plan';
import { useSession } from './context';
import { useView } from './view';

type EditedTable = Extract<Call, { operation: 'edit' }>['input']['table'];
/** Sets one field of a record, whatever it holds. */
export const editCall = (table: EditedTable, id: string, field: string, value: unknown): Call => ({
  operation: 'edit',
  input: { table, id, set: { [field]: value } },
});

/**
 * Sets one field of a record. The value that was in view goes with it, so that nothing is overwritten that somebody else changed
 * meanwhile; it is the value of the plan that is shown, unless another is given.
 */
export function useEdit() {
  const session = useSession();
  return (table: TableName, id: string, field: string, value: unknown, seen?: unknown) => {
    const record = recordIn(session.plan, table, id);
    const known = seen === undefined ? record && toWire(table, record)[field] : seen;
    return session.perform({
      operation: 'edit',
      input: {
        table: table as EditedTable,
        id,
        set: { [field]: value },
        ...(known === undefined ? {} : { seen: { [field]: known } }),
      },
    });
  };
}

/** Performs a call; where it would push hosts out, shows what moves before it is accepted. */
export function usePerformOrReview() {
  const session = useSession();
  const set = useView((state) => state.set);
  return (call: Call, relocate: Call, title: string) => {
    try {
      session.perform(call);
    } catch (error) {
      if (!(error instanceof Refusal) || error.code !== 'in-use') throw error;
      set({ review: { title, call: relocate, accept: 'Move them' } });
    }
  };
}

const bad = (message: string) => new Refusal('bad-input', message);

/** Is it written that there is nothing: by nothing, by “none”, or by the word that stands in the empty field? */
export const isNone = (text: string, word = 'none'): boolean =>
  ['', 'none', word.toLowerCase()].includes(text.trim().toLowerCase());

/** What a text says, or null where it says that there is nothing. */
export const orNone = <T>(text: string, read: (text: string) => T, word?: string): T | null =>
  isNone(text, word) ? null : read(text);

/** A typed whole number, or a Refusal that names the field. */
export function wholeNumber(text: string, what: string, field = ''): number {
  if (!/^\d+$/.test(text.trim()))
    throw badInput(`${what} “${text}” is not a whole number; write digits only.`, field);
  return Number(text);
}

/** A typed subnet: `10.0.0.0/24`, or `/25` to change only the size of the one there is. Host bits are cleared. */
export function typedPrefix(text: string, now: Subnet | undefined): string {
  const short = /^\/(\d{1,3})$/.exec(text.trim());
  if (short && now) {
    const length = Number(short[1]);
    if (length > widthOf(familyOf(now.prefix.address)))
      throw bad(`A length of /${length} is too long; write a smaller number.`);
    return formatPrefix(networkOf(now.prefix.address, length));
  }
  const parsed = parsePrefix(text);
  return parsed ? formatPrefix(parsed.prefix) : text;
}

/** A typed address, in full or short beside its subnet; what is none stays as it is typed, for whoever refuses it. */
export function typedAddress(text: string, subnet: Subnet | undefined): string {
  const address = subnet ? parseAddressIn(text, subnet.prefix) : parseAddress(text);
  return address === null ? text.trim() : formatAddress(address);
}
