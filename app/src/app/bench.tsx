export { BenchPlace as default } from '../places/bench/bench-place';
