export {
  type Leg,
  type NextHop,
  type Router,
  holdersOf,
  isOneToOne,
  isSame,
  legUp,
  meetingPoint,
  routersAt,
  routersIn,
  uplinksOut,
  wayTo,
} from './router';
