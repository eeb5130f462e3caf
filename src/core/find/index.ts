export { type Hit, findInPlan } from './find';
