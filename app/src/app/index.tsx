export { BarPlace as default } from '../places/bar/bar-place';
