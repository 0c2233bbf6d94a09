import type { Shot, ShotNames } from './shots'

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')

/** Text within a script: nothing in it may end the script. */
const inScript = (value: unknown) => JSON.stringify(value).replaceAll('<', '\\u003c').replaceAll('\u2028', '\\u2028')

const STYLE = `
:root{--paper:#f6f3ea;--sheet:#fdfbf5;--ink:#1b2529;--quiet:#535f66;--rule:#d6d0c1;--accent:#0d5c75;color-scheme:light}
@media (prefers-color-scheme:dark){:root{--paper:#11171a;--sheet:#182024;--ink:#e9e4d8;--quiet:#a5afb2;--rule:#303b41;--accent:#82c6d8;color-scheme:dark}}
*{box-sizing:border-box}
body{margin:0 auto;max-width:44rem;padding:1rem 1rem 6rem;background:var(--paper);color:var(--ink);font:1.05rem/1.4 system-ui,sans-serif}
h1{margin:0;font-size:1.4rem;line-height:1.2}
p{margin:.3rem 0 1rem;color:var(--quiet)}
ol{margin:0;padding:0;list-style:none;border-top:1px solid var(--ink)}
label{display:grid;grid-template-columns:2.2rem 1fr;gap:.4rem;padding:.7rem 0;border-bottom:1px solid var(--rule);cursor:pointer}
input{width:1.6rem;height:1.6rem;margin:0;accent-color:var(--accent)}
b{display:block}
small{display:block;color:var(--quiet);font-size:.9rem}
label.done b{text-decoration:line-through}
button{position:fixed;left:1rem;right:1rem;bottom:1rem;max-width:42rem;margin:0 auto;padding:.9rem;border:0;border-radius:3px;background:var(--accent);color:var(--paper);font:inherit;font-weight:600}
`

/**
 * Ticks live in two places: under a key of the production in the browser’s own store, for every later opening of the
 * file, and behind the # of the page’s address, because a browser that reloads or drops a page may lose what the page
 * gave to the store a moment ago. Each tick knows when it was made, and the later one counts. The file names what it
 * gives back.
 */
const SCRIPT = `
const key='yendra-shots-'+list.productionId;
let kept=true;
const ticks={};
const take=(text)=>{
  let read={};
  try{read=JSON.parse(text)||{}}catch{}
  for(const id of Object.keys(list.shots)){
    if(!Object.hasOwn(read,id))continue;
    const tick=Array.isArray(read[id])?read[id]:[read[id]||'',read[id]];
    if(!ticks[id]||tick[0]>ticks[id][0])ticks[id]=tick;
  }
};
const takeKept=()=>{try{take(localStorage.getItem(key))}catch{kept=false}};
const takeAddress=()=>{try{take(decodeURIComponent(location.hash.slice(1)))}catch{}};
const keep=()=>{
  takeKept();
  const text=JSON.stringify(ticks);
  try{localStorage.setItem(key,text)}catch{kept=false}
  try{history.replaceState(null,'','#'+encodeURIComponent(text))}catch{}
};
takeKept();
takeAddress();
try{localStorage.setItem(key,localStorage.getItem(key)||'{}')}catch{kept=false}
const boxes=[...document.querySelectorAll('input')];
const stateOf=(id)=>ticks[id]?ticks[id][1]:list.shots[id];
const say=()=>{
  const open=boxes.filter((box)=>!box.checked);
  const next=open[0]?open[0].parentElement.querySelector('b').textContent:'';
  document.querySelector('h1').textContent=open.length===0?'All '+boxes.length+' shots are filmed.':(boxes.length-open.length)+' of '+boxes.length+' filmed; next \\u201c'+next+'\\u201d.';
  document.getElementById('kept').hidden=kept;
};
const show=()=>{
  for(const box of boxes){
    box.checked=stateOf(box.dataset.shot)!==null;
    box.parentElement.classList.toggle('done',box.checked);
  }
  say();
};
for(const box of boxes){
  box.addEventListener('change',()=>{
    const now=new Date().toISOString();
    ticks[box.dataset.shot]=[now,box.checked?now:null];
    keep();
    show();
  });
}
addEventListener('storage',()=>{takeKept();show()});
show();
document.querySelector('button').addEventListener('click',()=>{
  const given={productionId:list.productionId,ticks:Object.keys(ticks).map((shotId)=>({shotId,filmedAt:ticks[shotId][1]}))};
  const link=document.createElement('a');
  link.href=URL.createObjectURL(new Blob([JSON.stringify(given)],{type:'application/json'}));
  link.download=list.file;
  link.click();
});
`

export interface ShotPage extends ShotNames {
  readonly productionId: string
  readonly title: string
  /** Day and place, in words. */
  readonly when: string
  /** Name of the file that gives the ticks back. */
  readonly file: string
  readonly shots: readonly Shot[]
}

/**
 * The shot list as one page of HTML for a phone without a network: the ticks stay in its browser, and a press gives
 * those that were made on it back as a file, so that what was ticked elsewhere meanwhile stays. Nothing is loaded from
 * anywhere (the policy in its head sees to that).
 */
export function shotPage({ productionId, title, when, file, shots, cameras, destinations }: ShotPage): string {
  const named = (all: ShotNames['cameras'], id: string) => all.find((one) => one.id === id)?.name
  const rows = shots.map((shot, at) => {
    const more = [
      shot.cameraId ? named(cameras, shot.cameraId) : undefined,
      shot.deliverables.flatMap((id) => named(destinations, id) ?? []).join(', '),
      shot.notes,
    ].filter(Boolean)
    return (
      `<li><label><input type="checkbox" data-shot="${escaped(shot.id)}"><span><b>${at + 1}. ` +
      `${escaped(shot.name)}</b>${more.length > 0 ? `<small>${escaped(more.join(' · '))}</small>` : ''}</span></label></li>`
    )
  })
  const list = { productionId, file, shots: Object.fromEntries(shots.map((shot) => [shot.id, shot.filmedAt])) }
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'">
<title>${escaped(title)}: shots</title>
<style>${STYLE}</style>
</head>
<body>
<main>
<h1>${shots.length} shots</h1>
<p>${escaped(title)}${when ? `, ${escaped(when)}` : ''}</p>
<p id="kept" hidden>This browser keeps the ticks only while the page is open: give them back before you close it.</p>
<ol>
${rows.join('\n')}
</ol>
</main>
<button type="button">Give the ticks back as a file</button>
<script>const list=${inScript(list)};${SCRIPT}</script>
</body>
</html>
`
}
