// Writes what the open implementation of FSRS-6 makes of answers drawn by chance, for the tests of core to agree with:
//   node bench/spacing.mjs > core/src/test/resources/spacing.csv
import { createRequire } from 'node:module';
import { chances } from './person.mjs';

const { fsrs } = createRequire(new URL('../web/package.json', import.meta.url))('ts-fsrs');
const chance = chances(6);
const model = fsrs({ enable_fuzz: false, enable_short_term: true });
console.log('# ts-fsrs 5.4.2, default weights: card, days since the last answer, grade, stability, difficulty, recall');
for (let card = 0; card < 60; card++) {
  let state = null;
  for (let answer = 0; answer < 8; answer++) {
    const grade = 1 + Math.floor(chance() * 4);
    const days = answer === 0 || chance() < 0.25 ? 0 : Math.ceil(chance() * chance() * 90);
    const recall = state === null || days === 0 ? 1 : model.forgetting_curve(days, state.stability);
    state = model.next_state(state, days, grade);
    console.log([card, days, grade, state.stability, state.difficulty, recall].join(','));
  }
}
