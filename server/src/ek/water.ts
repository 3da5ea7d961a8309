/**
 * The command line's waters: boiling, blending, cooling, heating.
 */
import type { Command } from 'commander';
import { showClock } from '@even-kettle/core/units';
import {
  blendFor,
  blendedC,
  boilingPointC,
  COOLING_AT_G,
  coolingPerMinFrom,
  coolingTimeS,
  heatingTimeS,
  type Water,
} from '@even-kettle/core/water';
import { Wrong, number, type Io } from './reading';

export function addWater(program: Command, io: Io): void {
  const water = program.command('water').description('boiling, blending, cooling, heating');
  const c = (value: number) => `${value.toFixed(1)} °C\n`;
  water
    .command('boil')
    .description('where water boils')
    .option('--altitude-m <m>', 'metres above the sea', number('--altitude-m'), 0)
    .action(({ altitudeM }: { altitudeM: number }) => io.out(c(boilingPointC(altitudeM))));
  water
    .command('blend')
    .description('the temperature of waters mixed, or the shares for a temperature')
    .option('--of <g@C...>', 'waters to mix, like 48@18 217@96')
    .option('--mass-g <g>', 'how much is wanted', number('--mass-g'))
    .option('--to-c <c>', 'how hot it is to be', number('--to-c'))
    .option('--hot-c <c>', 'the hot water', number('--hot-c'))
    .option('--cold-c <c>', 'the cold water', number('--cold-c'))
    .action((asked: { of?: string[]; massG?: number; toC?: number; hotC?: number; coldC?: number }) => {
      if (asked.of) return io.out(c(blendedC(asked.of.map(readWater))));
      const { massG, toC, hotC, coldC } = asked;
      if (massG === undefined || toC === undefined || hotC === undefined || coldC === undefined)
        throw new Wrong('Give --of 48@18 217@96, or all of --mass-g, --to-c, --hot-c and --cold-c.');
      const { hotG, coldG } = blendFor(massG, toC, { hotC, coldC });
      io.out(`${hotG.toFixed(0)} g of ${hotC} °C and ${coldG.toFixed(0)} g of ${coldC} °C\n`);
    });
  water
    .command('cool')
    .description('boiled, wait until; the kettle’s own k from two readings')
    .requiredOption('--from-c <c>', 'now', number('--from-c'))
    .requiredOption('--to-c <c>', 'wanted', number('--to-c'))
    .option('--room-c <c>', 'the room', number('--room-c'), 21)
    .option('--k <k>', 'Newton’s k, per minute with 450 g', number('--k'))
    .option('--mass-g <g>', 'water in the kettle', number('--mass-g'), COOLING_AT_G)
    .option('--apart-s <s>', 'the readings are so far apart: gives k instead', number('--apart-s'))
    .action(
      (asked: { fromC: number; toC: number; roomC: number; k?: number; massG: number; apartS?: number }) => {
        const { fromC, toC, roomC, k, massG, apartS } = asked;
        if (apartS !== undefined)
          return io.out(`k = ${coolingPerMinFrom(fromC, toC, apartS, roomC, massG).toFixed(4)} per minute\n`);
        const waitS = coolingTimeS({ fromC, roomC, massG, ...(k === undefined ? {} : { perMin: k }) }, toC);
        io.out(`${showClock(Math.round(waitS))}\n`);
      },
    );
  water
    .command('heat')
    .description('how long a kettle takes')
    .requiredOption('--mass-g <g>', 'water', number('--mass-g'))
    .requiredOption('--to-c <c>', 'wanted', number('--to-c'))
    .option('--from-c <c>', 'now', number('--from-c'), 20)
    .option('--power-w <w>', 'the kettle', number('--power-w'), 1200)
    .action(
      ({ massG, toC, fromC, powerW }: { massG: number; toC: number; fromC: number; powerW: number }) => {
        if (!(massG > 0)) throw new Wrong('--mass-g must be more than 0 g.');
        if (!(powerW > 0)) throw new Wrong('--power-w must be more than 0 W.');
        if (!(toC <= 100)) throw new Wrong('--to-c must be at most 100 °C: water gets no hotter.');
        io.out(`${showClock(Math.ceil(heatingTimeS(massG, toC, { powerW, filledAtC: fromC })))}\n`);
      },
    );
}

function readWater(text: string): Water {
  const [, mass, at] = /^([^@]+)@([^@]+)$/.exec(text) ?? [];
  if (mass === undefined || at === undefined)
    throw new Wrong(`“${text.slice(0, 20)}” must be grams@degrees, like 48@18.`);
  const [massG, atC] = [number(text)(mass), number(text)(at)];
  return { massG, atC };
}
