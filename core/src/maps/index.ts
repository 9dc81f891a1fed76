export * from './atlas.js';
export * from './drawnMap.js';
export { MAP_VIEWS, type MapView } from './mapView.js';
