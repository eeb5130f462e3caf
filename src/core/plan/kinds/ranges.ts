import { familyOf, type IpAddress } from '../../address';

/** The law of a range of addresses, with what to do where it is broken. */
export const ordered = {
  holds: ({ start, end }: { readonly start: IpAddress; readonly end: IpAddress }): boolean =>
    familyOf(start) === familyOf(end) && start <= end,
  message: 'The start lies after the end; swap them',
  field: 'end',
} as const;
