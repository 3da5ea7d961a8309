/** What a device or program may do, as the bar's people call it. */
import type { Role } from '@even-kettle/core/contract/roles';

export const ROLE_NAMES: Record<Role, string> = {
  lead: 'Lead',
  barista: 'Barista',
  board: 'Board',
  till: 'Till',
  bridge: 'Scales and kettles',
  monitor: 'Monitor',
};

export const ROLE_MEANS: Record<Role, string> = {
  lead: 'May do all, and lets other devices in.',
  barista: 'Brews, takes orders, reads the log, practises. It changes neither settings nor recipes.',
  board: 'Shows the board to guests, and nothing else.',
  till: 'Posts orders and reads its own.',
  bridge: 'Speaks for scales and kettles.',
  monitor: 'Reads the server’s figures.',
};
