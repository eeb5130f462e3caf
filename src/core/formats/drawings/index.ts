export { channelsDrawing } from './channels';
export { type Drawing, type Shape, svgOf } from './drawing';
export { faceDrawing } from './face';
export { matrixDrawing } from './matrix';
export { mapDrawing } from './map';
