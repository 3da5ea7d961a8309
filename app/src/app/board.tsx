export { BoardPlace as default } from '../places/alone';
