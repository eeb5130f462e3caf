import { type IpAddress, addOffset } from './ip';
import { type Prefix, lastOf } from './prefix';

/** A run of addresses, both ends included. */
export interface AddressRange {
  readonly start: IpAddress;
  readonly end: IpAddress;
}

/** Addresses in a range, counted inclusively: end − start + 1 (.100 to .149 is 50). */
export const countOf = (range: AddressRange): number => Number(BigInt(range.end) - BigInt(range.start)) + 1;

/** The last address of a range that starts at `start` and has `count` addresses. */
export const endOf = (start: IpAddress, count: number): IpAddress => addOffset(start, count - 1);

export const inRange = (range: AddressRange, address: IpAddress): boolean =>
  typeof address === typeof range.start && address >= range.start && address <= range.end;

export const rangesOverlap = (a: AddressRange, b: AddressRange): boolean =>
  typeof a.start === typeof b.start && a.start <= b.end && b.start <= a.end;

export const rangeOf = (prefix: Prefix): AddressRange => ({ start: prefix.address, end: lastOf(prefix) });
