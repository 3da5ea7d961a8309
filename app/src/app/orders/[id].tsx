export { OrderPage as default } from '../../places/orders/order-page';
