export { sharesOf, survivals, switchingOf } from './failover';
export { protocolsMeet, knownServiceAt, typedListener } from './services';
export { cardNamed, forwardedTo, forwardsOf, listenersOf, targetOf, uplinksOf } from './view';
export { EF, collisions, isPinned, losses } from './voice-box';
export {
  kindOfAddress,
  letsForwardsIn,
  mssOf,
  mtuOf,
  outsideOf,
  translatorsOf,
  usualMtu,
  wayOut,
} from './upstream';
export { turnsBack, uplinkDown, workingUplinks } from './working';
export { addressingWords, upstreamWords } from './words';
