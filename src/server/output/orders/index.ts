import type { OutputOrder, OutputOrders } from '@/core/output/output-order';
import type { OrderKind } from './order-kind';
import { picture } from './picture';
import { pictures } from './pictures';
import { switching } from './switching';

/** What can be sent out. */
const ORDERS: { [K in keyof OutputOrders]: OrderKind<OutputOrders[K]> } = { picture, pictures, switching };

/** The kind of an order, for orders of its kind. */
export const orderKind = <Order extends OutputOrder>({ kind }: Order) =>
  ORDERS[kind] as unknown as OrderKind<Order>;
