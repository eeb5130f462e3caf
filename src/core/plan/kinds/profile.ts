import { carriedFields, carriedWithout } from './carried';
import { text } from './fields';
import { kind } from './kind';

/** What a port carries, under a name. */
export const profile = kind({
  word: 'port profile',
  about: 'what a port carries, under a name',
  since: 2,
  table: 'port_profile',
  uniqueName: true,
  fields: { name: text('name', 40, { said: 'The profile’s name' }), ...carriedFields('profile_tagged') },
  title: ({ name }) => name,
  without: carriedWithout,
});
