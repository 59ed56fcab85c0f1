import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { plainRun } from '#core/network/testing.ts';
import { channelsOf, formatNumber, matches, parseMessage, parseNumber } from './scpi.ts';
import { IDENTITY, SimulatedMeter, type Outlet } from './simulated.ts';

const unit = (header: string, query: boolean, ...parameters: string[]) => ({
  header: header.split(':'),
  query,
  parameters,
});

const MESSAGES: [string, ReturnType<typeof parseMessage>][] = [
  ['*IDN?', [unit('*IDN', true)]],
  ['*ese 32;*ESE?', [unit('*ESE', false, '32'), unit('*ESE', true)]],
  [':MEASure:VOLTage:AC? (@1,3)', [unit('MEASURE:VOLTAGE:AC', true, '(@1,3)')]],
  // The second header goes on where the first branched; the third begins at the root.
  [
    'INP:IMP HIGH;LOAD 12;:SYST:ERR?',
    [unit('INP:IMP', false, 'HIGH'), unit('INP:LOAD', false, '12'), unit('SYST:ERR', true)],
  ],
  // A common command in between does not move the place.
  [
    'INP:IMP LOW;*WAI;LOAD OFF',
    [unit('INP:IMP', false, 'LOW'), unit('*WAI', false), unit('INP:LOAD', false, 'OFF')],
  ],
  ['DISP "a;b",\'c,d\'', [unit('DISP', false, '"a;b"', "'c,d'")]],
  ['', []],
  [' ; ;', []],
  ['MEAS::VOLT?', null],
  [':*IDN?', null],
  ['*IDN:X?', null],
  ['5VOLT?', null],
  ['MEAS:VOLT??', null],
  ['x'.repeat(513), null],
];
for (const [message, units] of MESSAGES)
  test(`reads ${JSON.stringify(message.slice(0, 40))}`, () => assert.deepEqual(parseMessage(message), units));

test('mnemonics are short or long and nothing between; nodes in brackets may be left out', () => {
  const pattern = 'MEASure[:SCALar]:VOLTage:AC';
  for (const said of ['MEAS:VOLT:AC', 'MEASURE:SCAL:VOLT:AC', 'MEAS:SCALAR:VOLTAGE:AC'])
    assert.ok(matches(said.split(':'), pattern), said);
  for (const said of ['MEASU:VOLT:AC', 'MEAS:VOLT', 'MEAS:VOLT:AC:RMS', 'VOLT:AC', 'MEAS:SCAL:SCAL:VOLT:AC'])
    assert.ok(!matches(said.split(':'), pattern), said);
});

test('channel lists', () => {
  assert.deepEqual(channelsOf('(@1)'), [1]);
  assert.deepEqual(channelsOf('(@ 1, 3:4 )'), [1, 3, 4]);
  for (const wrong of ['1', '(1)', '(@)', '(@1,)', '(@a)', '(@1:2:3)']) assert.equal(channelsOf(wrong), null);
});

test('a number that is written reads back to five digits', () => {
  assert.equal(formatNumber(119.873), '+1.19873E+02');
  assert.equal(formatNumber(-0.00042), '-4.20000E-04');
  assert.equal(formatNumber(0), '+0.00000E+00');
  fc.assert(
    fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (value) => {
      const back = parseNumber(formatNumber(value))!;
      assert.ok(Math.abs(back - value) <= 1e-5 * Math.abs(value));
    }),
  );
  for (const wrong of ['', 'volts', '1.2.3', '+', 'NaN', 'Infinity', '0x10', '1,2', '1e999'])
    assert.equal(parseNumber(wrong), null, wrong);
});

test('whatever comes, the grammar does not break', () => {
  fc.assert(fc.property(fc.string({ maxLength: 80 }), (text) => void parseMessage(text)));
});

const outlet = (values: Partial<Outlet> = {}): Outlet => ({
  run: plainRun(4),
  stop: 3,
  faults: [],
  dead: false,
  ...values,
});
/** What a meter answers to messages in turn. */
const says = (meter: SimulatedMeter, ...messages: string[]) => messages.map((m) => meter.take(m));
const numbers = (answer: string | null) => answer!.split(',').map(Number);

test('the meter says who it is and reads what stands at its outlet', () => {
  const meter = new SimulatedMeter(outlet());
  assert.deepEqual(says(meter, '*IDN?', '*TST?', 'SYST:VERS?'), [IDENTITY, '0', '1999.0']);
  const [hn, hg, ng] = numbers(meter.take('MEAS:VOLT:AC? (@1:3)'));
  assert.ok(Math.abs(hn! - 120) < 0.1 && Math.abs(hg! - 120) < 0.1 && ng! < 0.1);
  assert.deepEqual(numbers(meter.take('CONF:VOLT:AC;:READ?')), [hn]);
  assert.equal(meter.take('CONF?'), '"VOLT:AC"');
});

test('with a load on it sags, and the clamp sees the load; low impedance takes a ghost away', () => {
  const meter = new SimulatedMeter(outlet());
  assert.equal(meter.take('INP:LOAD 12'), null);
  const [hn] = numbers(meter.take('MEAS:VOLT:AC?'));
  const [amps] = numbers(meter.take('MEAS:CURR:AC?'));
  assert.ok(hn! < 119.5 && hn! > 110 && Math.abs(amps! - (hn! * 12) / 120) < 0.01, `${hn} V, ${amps} A`);
  const loose = new SimulatedMeter(
    outlet({ faults: [{ kind: 'open', stop: 3, conductor: 'neutral', part: 'cable' }] }),
  );
  const ghost = numbers(loose.take('MEAS:VOLT:AC?'))[0]!;
  loose.take('INP:IMP LOW');
  const gone = numbers(loose.take('MEAS:VOLT:AC?'))[0]!;
  assert.ok(ghost > 10 && gone < 1, `${ghost} V, then ${gone} V`);
});

test('ohms are read on a dead circuit alone', () => {
  const live = new SimulatedMeter(outlet());
  assert.equal(live.take('MEAS:RES? (@1)'), null);
  assert.equal(live.take('SYST:ERR?'), '-221,"Settings conflict"');
  const dead = new SimulatedMeter(outlet({ dead: true }));
  const [over, loop] = numbers(dead.take('MEAS:RES? (@1,3)'));
  assert.equal(over, 9.9e37);
  assert.ok(loop! > 0.1 && loop! < 1);
});

test('what is wrong is queued, answers nothing, and sets the event status', () => {
  const meter = new SimulatedMeter(outlet());
  const wrong = [
    'BAD?',
    'MEAS:VOLT:AC? 5',
    'MEAS:VOLT:AC? (@9)',
    'INP:LOAD',
    '*IDN? 3',
    'INP:LOAD 900',
    'MEAS:VOLT:AC? (@4)',
    'MEAS::VOLT?',
  ];
  assert.deepEqual(
    says(meter, ...wrong),
    wrong.map(() => null),
  );
  const errors = wrong.map(() => meter.take('SYST:ERR?')!.split(',')[0]);
  assert.deepEqual(errors, ['-113', '-104', '-222', '-109', '-108', '-222', '-221', '-102']);
  assert.equal(meter.take('SYST:ERR:NEXT?'), '0,"No error"');
  // Power on, command and execution errors; reading clears it.
  assert.deepEqual(says(meter, '*ESR?', '*ESR?'), ['176', '0']);
  for (let i = 0; i < 20; i++) meter.take('BAD?');
  const queue = Array.from({ length: 17 }, () => meter.take('SYST:ERR?')!);
  assert.equal(queue[15], '-350,"Queue overflow"');
  assert.equal(queue[16], '0,"No error"');
});

test('status byte and enables, reset and clear', () => {
  const meter = new SimulatedMeter(outlet());
  meter.take('*CLS;*ESE 32;*SRE 32');
  assert.deepEqual(says(meter, '*ESE?;*SRE?;*STB?'), ['32;32;0']);
  meter.take('BAD');
  assert.equal(meter.take('*STB?'), '100');
  meter.take('*CLS');
  assert.equal(meter.take('*STB?'), '0');
  meter.take('INP:LOAD 5;IMP LOW;*RST');
  assert.deepEqual(numbers(meter.take('INP:LOAD?')), [0]);
  assert.deepEqual(numbers(meter.take('INP:IMP?')), [1e7]);
  assert.equal(meter.take('*OPC;*ESR?'), '1');
});
