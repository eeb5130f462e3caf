import { type Facts, faultsOf } from './suitable';

const good: Facts = {
  version: '10.11.19-MariaDB-0+deb12u1',
  sqlMode: 'STRICT_TRANS_TABLES,ERROR_FOR_DIVISION_BY_ZERO',
  packet: 256 * 1024 * 1024,
  charset: 'utf8mb4',
  database: 'plan_net',
  grants: ['GRANT USAGE ON *.* TO `me`@`%`', 'GRANT ALL PRIVILEGES ON `plan\\_net`.* TO `me`@`%`'],
};

test.each<[string, Partial<Facts>, RegExp | null]>([
  ['as it should be', {}, null],
  ['with all rights everywhere', { grants: ['GRANT ALL PRIVILEGES ON *.* TO `root`@`localhost`'] }, null],
  ['too old', { version: '10.3.39-MariaDB' }, /MariaDB 10.6 or newer/],
  ['another product', { version: '8.0.36' }, /MariaDB 10.6 or newer/],
  ['not strict', { sqlMode: 'NO_ENGINE_SUBSTITUTION' }, /sql_mode = STRICT_TRANS_TABLES/],
  ['with small packets', { packet: 1024 * 1024 }, /max_allowed_packet = 256M/],
  ['in another character set', { charset: 'latin1' }, /ALTER DATABASE `plan_net` CHARACTER SET utf8mb4/],
  [
    'with too few rights',
    { grants: ['GRANT SELECT, INSERT, UPDATE, DELETE ON `plan_net`.* TO `me`@`%`'] },
    /GRANT CREATE, ALTER, INDEX, DROP, REFERENCES ON `plan_net`/,
  ],
  [
    'with rights on another one',
    { grants: ['GRANT ALL PRIVILEGES ON `other`.* TO `me`@`%`'] },
    /may not SELECT/,
  ],
])('a database %s', (_, facts, fault) => {
  const faults = faultsOf({ ...good, ...facts });
  if (fault) expect(faults).toEqual([expect.stringMatching(fault)]);
  else expect(faults).toEqual([]);
});
