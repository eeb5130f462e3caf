import { type HardeningItem, type Plan, boxOf, siteOf } from '../../plan';
import { hardeningFor, hardeningTitles, tickOf } from '../../model/guards';
import { type SettingLine, line } from './page';

/** What every box is told whatever it does: who it is, what time it is, and what is done before it is left alone. */

/** The points of the hardening list that are still to be done, in words. */
const toDo = (plan: Plan, device: string, items: readonly HardeningItem[]): SettingLine[] =>
  hardeningFor(plan, device)
    .filter((item) => items.includes(item) && tickOf(plan, device, item) === null)
    .map((item) => line(hardeningTitles[item]));

export function identityLines(plan: Plan, device: string): SettingLine[] {
  const box = boxOf(plan, device);
  const kept = box?.loginKept ? `the new one is kept: ${box.loginKept}` : 'the customer keeps the new one';
  const place = [box?.location, box?.mounting].filter(Boolean).join(', ');
  return [
    line('Name', plan.device.get(device)!.name),
    ...(place === '' ? [] : [line('Place', place)]),
    ...(box?.loginChanged || box?.controller ? [] : [line('Default login', `change it; ${kept}`)]),
    ...(box?.firmware ? [line('Firmware', box.firmware)] : toDo(plan, device, ['firmware'])),
    ...(box?.controller ? [line('Managed by', plan.device.get(box.controller)!.name)] : []),
  ];
}

export const protectionLines = (plan: Plan, device: string): SettingLine[] =>
  toDo(plan, device, ['services', 'sessions', 'management']);

export const timeLines = (plan: Plan, device: string): SettingLine[] => [
  line('Time zone', siteOf(plan).timeZone),
  ...toDo(plan, device, ['time', 'reach']),
];

export const saveLines = (plan: Plan, device: string): SettingLine[] => [
  line('Save', 'so that it outlives a restart'),
  ...toDo(plan, device, ['saved', 'secrets']),
];
