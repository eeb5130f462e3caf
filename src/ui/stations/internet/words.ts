import { addressings, outsides, passings, protocols, upstreams } from '@/core/plan';
import { addressingWords, upstreamWords } from '@/core/model/uplink';

/** What the choices of the Internet side are called on the screen. */
const named = <T extends string>(values: readonly T[], words: Readonly<Record<T, string>>) =>
  values.map((value) => ({ value, label: words[value] }));

export const addressingOptions = named(addressings, addressingWords);
export const upstreamOptions = named(upstreams, upstreamWords);
export const passingOptions = named(passings, {
  nothing: 'nothing',
  listed: 'the ports recorded here',
  everything: 'everything (exposed host)',
});
export const outsideOptions = named(outsides, {
  unknown: 'not known',
  public: 'public',
  private: 'private (RFC 1918)',
  shared: 'shared (100.64.0.0/10)',
});
export const protocolWords = { tcp: 'tcp', udp: 'udp', both: 'tcp and udp' };
export const protocolOptions = named(protocols, protocolWords);

/** Works, does not, or cannot be known: a word beside the mark. */
export const worksWord = (works: boolean | null): string =>
  works === null ? 'not known' : works ? 'works' : 'no';
