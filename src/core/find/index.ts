export { type FindQuery, type Hit, findInPlan, findQuery } from './find';
