export { NewOrder as default } from '../../places/orders/new-order';
