export {
  type Leg,
  type Router,
  holdersOf,
  isSame,
  legUp,
  routersAt,
  routersIn,
  uplinksOut,
  wayTo,
} from './router';
