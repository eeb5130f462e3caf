import { address, longText, note, oneOf, text, whole } from './fields';
import { kind } from './kind';

/** Where a box as it comes listens to whoever sets it up. */
export const waysIn = ['any-port', 'one-port', 'link-local', 'console'] as const;
export const consoleSockets = ['none', 'rj45', 'usb', 'serial'] as const;

/** How one gets into boxes of a model, and how long they take; what the installer knows of it in general words. */
export const model = kind({
  word: 'model',
  about:
    'how one gets into boxes of a model as they come: address, port, console, how long they start, how they are reset, what is odd about them',
  since: 13,
  table: 'box_model',
  uniqueName: true,
  indexes: { name: ({ name }) => name.toLowerCase() },
  fields: {
    /** As it stands on the boxes. */
    name: text('model', 80),
    way: oneOf('way in', waysIn, { column: 'way_in' }),
    /** The one that answers until the first restart; null where any does, or nobody knows. */
    port: whole('port to begin at', 1, 1000).nullable(),
    /** Null: nobody looked it up. */
    address: address('address it comes with').nullable(),
    length: whole('mask it comes with', 8, 30, { said: 'The mask length', column: 'mask_length' }),
    console: oneOf('console socket', consoleSockets, { column: 'console_socket' }),
    consoleSpeed: whole('console speed', 300, 1_000_000, { unit: 'bit/s' }).nullable(),
    /** From power to its page. */
    starts: whole('time to start', 1, 3600, { unit: 's' }).nullable(),
    /** What one setting page takes with it, read, filled in and taken. */
    page: whole('time for a page', 1, 3600, { unit: 's', column: 'page_time' }).nullable(),
    reset: note('how to reset it', 200, { column: 'reset_by' }),
    light: note('what the light does', 200),
    quirks: longText('quirks', 2000),
  },
  title: ({ name }) => name,
});
