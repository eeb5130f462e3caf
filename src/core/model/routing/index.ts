export {
  type Leg,
  type NextHop,
  type Router,
  holdersOf,
  isSame,
  legUp,
  routersAt,
  routersIn,
  uplinksOut,
  wayTo,
} from './router';
