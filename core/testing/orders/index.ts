import { airOrders } from './air'
import { gasOrders } from './gas'
import type { Order } from './order'
import { productOrders } from './product'
import { waterOrders } from './water'

export const orders: readonly Order[] = [
  ...waterOrders,
  ...gasOrders,
  ...airOrders,
  ...productOrders,
]
