export {
  type Arrangement,
  type Frame,
  HEAD,
  NAME_ROW,
  PLACE_HEAD,
  type PlacedBox,
  type Point,
  ROW,
  SOCKET,
  type Side,
  arrange,
  extentOf,
  placesOf,
  rowKey,
  rowsOf,
  withMoved,
} from './arrange';
export {
  INTERNET,
  type MapBox,
  type MapCable,
  type MapModel,
  boxSentence,
  mapOf,
  outsidePort,
} from './map-model';
export { positionsOf } from './positions';
