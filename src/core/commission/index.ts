export { lostWithoutOrder } from './naive';
export { type Entry, type Order, orderOf } from './order';
export { reachedFrom } from './reach';
export { type AsItComes, type Management, type SiteState, plannedState, presentState } from './state';
export { type Setting, type SettingKind, type Step, after, settingsOf } from './steps';
