/**
 * SQL for the name of the device that a screen belongs to: the machine's own where it belongs to none, and null where no
 * device has ever joined, because then there is nothing to tell apart.
 * @param screen SQL for the id of the screen
 */
export function deviceNameSql(screen: string): string {
  return `case when exists (select 1 from device) then coalesce(
    (select d.name from screen c join device d on d.id = c.device_id where c.id = ${screen}),
    (select desk_name from home_network), 'Desk') end`;
}

/** SQL for whose it is: the id of the device, or `desk`. @param screen SQL for the id of the screen */
export function makerSql(screen: string): string {
  return `coalesce((select c.device_id::text from screen c where c.id = ${screen}), 'desk')`;
}
