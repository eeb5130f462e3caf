export { type Leg, type Router, holdersOf, isSame, legUp, routersAt, routersIn, wayTo } from './router';
