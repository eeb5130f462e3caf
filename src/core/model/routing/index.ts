export {
  type Leg,
  type NextHop,
  type Router,
  holdersOf,
  isSame,
  legUp,
  meetingPoint,
  routersAt,
  routersIn,
  uplinksOut,
  wayTo,
} from './router';
