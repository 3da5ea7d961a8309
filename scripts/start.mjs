/** `npm start [-- --network]`: the bar, with its own data in data/even-kettle.sqlite; with --network for the devices around it. */
import { madeReady } from './command.mjs';
import { say } from './lib.mjs';
import { serve } from './serve.mjs';

const isForNetwork = process.argv.includes('--network');
await madeReady({ all: true });
// A server on a network says itself where it is, and how devices come in.
if (!isForNetwork) say(`Even Kettle: http://127.0.0.1:${process.env.PORT || 4173}   (Ctrl+C stops it)`);
serve(isForNetwork ? { HOST: process.env.HOST || '0.0.0.0' } : {});
