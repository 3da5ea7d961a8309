export { LogPlace as default } from '../places/log/log-place';
