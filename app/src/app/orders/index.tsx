export { OrdersPlace as default } from '../../places/orders/orders-place';
