import { text } from './fields';
import { kind } from './kind';

/** A bridged network, within which VLAN ids are unique. */
export const lan = kind({
  word: 'LAN',
  about: 'a bridged network; VLAN ids are unique within one',
  since: 1,
  table: 'lan',
  fields: { name: text('name', 60, { said: 'The LAN’s name' }) },
  title: ({ name }) => name,
});
