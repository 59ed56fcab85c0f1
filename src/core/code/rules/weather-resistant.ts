import { always } from '#core/tables/editions.ts';
import { changeDevice, rule } from '../rule.ts';
import { verdictFromDecision } from './fromDecision.ts';

export const weatherResistant = rule({
  id: 'weather-resistant',
  title: 'Weather-resistant receptacles',
  scope: 'box',
  level: 'violation',
  sections: always('406.9'),
  why: 'Contacts and faces of ordinary receptacles corrode and crack in damp and wet places.',
  check: (box, view) =>
    verdictFromDecision('weather-resistant', box, view, () => [
      { label: `Make ${box.name} weather-resistant`, command: changeDevice(box, { weatherResistant: true }) },
    ]),
});
