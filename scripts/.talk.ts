// usage: talk bot.yaml < lines ; '---' starts anew
import { readFileSync } from 'node:fs';
import { loadBotFile } from '/work/main/src/cli/files.ts';
import { readyBot } from '/work/main/src/cli/bot.ts';
import { textsOfTurn } from '/work/main/src/core/converse/turn.ts';
import { startConversation } from '/work/main/src/core/converse/state.ts';
import { step } from '/work/main/src/core/converse/step.ts';
const lines = readFileSync(0,'utf8').split('\n').filter(Boolean);
const { recogniser, vectors } = await readyBot(loadBotFile(process.argv[2]!), lines, textsOfTurn);
let state = startConversation('40001');
for (const line of lines) {
  if (line === '---') { state = startConversation('40001'); console.log('---'); continue; }
  const r = step(recogniser, state, line==='(silence)'?{type:'noInput'}:{ type: 'text', text: line, vectors, now: '2026-03-04T09:30' });
  state = r.state;
  const rec = r.trace.recognition;
  console.log(`> ${line}    [${rec?.decision} ${rec?.ranking[0]?.intent} ${rec?.ranking[0]?.confidence.toFixed(2)}] ${r.trace.reader}: ${r.trace.why}`);
  for (const s of r.says) console.log('     ' + s.text);
  const acts = r.acts.filter(a=>a.act!=='openForm').map(a=>a.act==='setSlot'?`${a.slot}=${JSON.stringify(a.value)}`:a.act==='clearSlot'?`-${a.slot}`:a.act==='complete'?`COMPLETE ${JSON.stringify(a.values)}`:a.act);
  if (acts.length) console.log('       {'+acts.join(', ')+'}');
}
