export { dynamicNeed } from './need';
