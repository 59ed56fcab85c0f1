/** Tests and replacements of protecting devices as iCalendar, RFC 5545. */
import ICAL from 'ical.js';
import type { JobDocument } from '#core/job/schema.ts';
import type { RegisteredDevice } from '#core/records/deviceTests.ts';

const nameOf = ({ kind, box, circuit }: RegisteredDevice): string =>
  box
    ? `${kind.toUpperCase()} ${box.name}`
    : `${kind.toUpperCase()} breaker, space ${circuit.space}, ${circuit.name}`;

function event(
  uid: string,
  day: string,
  summary: string,
  description: string,
  stamp: string,
  monthly: boolean,
): ICAL.Component {
  const component = new ICAL.Component('vevent');
  component.updatePropertyWithValue('uid', uid);
  component.updatePropertyWithValue('dtstamp', ICAL.Time.fromDateTimeString(stamp));
  component.updatePropertyWithValue('dtstart', ICAL.Time.fromDateString(day));
  component.updatePropertyWithValue('summary', summary);
  component.updatePropertyWithValue('description', description);
  component.updatePropertyWithValue('transp', 'TRANSPARENT');
  if (monthly) component.updatePropertyWithValue('rrule', ICAL.Recur.fromString('FREQ=MONTHLY'));
  return component;
}

/**
 * A calendar with a monthly test of each device and the day to replace it.
 * @param now UTC, such as `2026-05-04T14:30:00Z`
 */
export function calendarOf({ job }: JobDocument, register: readonly RegisteredDevice[], now: string): string {
  const stamp = `${now.slice(0, 19)}Z`;
  const today = now.slice(0, 10);
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Hekto//Device register//EN');
  for (const device of register) {
    const uid = `${device.key.replaceAll(' ', '-')}@${job.id}`;
    const name = nameOf(device);
    const protects = device.protects.map((p) => p.name).join(', ');
    const dark = protects === '' ? '' : ` These go dark with it: ${protects}.`;
    calendar.addSubcomponent(
      event(
        `test-${uid}`,
        device.nextTest !== null && device.nextTest > today ? device.nextTest : today,
        `Test ${name}`,
        `${job.name}: press its own button, see that it is dead, reset it.${dark}`,
        stamp,
        true,
      ),
    );
    if (device.replaceBy !== null)
      calendar.addSubcomponent(
        event(
          `replace-${uid}`,
          device.replaceBy,
          `Replace ${name}`,
          `${job.name}: put in ${device.installed}; ten years is a usual age to replace one at.`,
          stamp,
          false,
        ),
      );
  }
  return `${calendar.toString()}\r\n`;
}
