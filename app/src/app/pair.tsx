export { PairPlace as default } from '../places/alone';
