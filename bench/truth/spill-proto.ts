import { readFile } from 'node:fs/promises';
import { gunzipSync } from 'node:zlib';
import sharp from 'sharp';
import { srgb } from '@/core/color/srgb';
import { createCamera, type Camera } from '@/core/plan/camera';
import { placeFixture } from '@/core/fixture/place-fixture';
import { RELIEF_PLANES, reliefOf, type Relief } from '@/core/plan/relief';
import { surveyPlate } from '@/core/plan/survey';
import { wallPieces, standsAhead } from '@/core/plan/surfaces';
import { wholeRegion } from '@/core/plane/region';
import { addPointSpill } from '@/core/spill/add-point-spill';
import { occlude } from '@/core/spill/occlusion';
import { evenOut, shadingOf } from '@/core/plan/even-out';
import { TRUTH, TRUTH_ROOT, truthIds } from './truth-files';

const { width, height } = TRUTH; const N = width*height;
function halves(buf: Buffer): Float32Array { const u = new Uint16Array(buf.buffer, buf.byteOffset, buf.length/2); return Float32Array.from(u, h => { const s=h>>15?-1:1,e=(h>>10)&31,m=h&1023; return e===0? s*m*2**-24 : e===31? s*65504 : s*(1+m/1024)*2**(e-15); }); }
const read = async (p: string, n: string) => halves(gunzipSync(await readFile(`${TRUTH_ROOT}/${p}/truth/${n}.f16.gz`)));
const Y = (a: Float32Array) => Float32Array.from({length:N},(_, i)=>.2126*a[3*i]+.7152*a[3*i+1]+.0722*a[3*i+2]);
async function plateAt(p: string, w: number, h: number) { const {data}=await sharp(`demo/plates/${p}.jpg`).resize(w,h,{kernel:'cubic'}).raw().toBuffer({resolveWithObject:true}); const ch=(c:number)=>Float32Array.from({length:w*h},(_, i)=>srgb.decode(data[3*i+c]/255)); return {width:w,height:h,r:ch(0),g:ch(1),b:ch(2)}; }
const Lstar = (y:number)=> { const t=Math.min(1,Math.max(0,y)); return t>0.008856?116*Math.cbrt(t)-16:903.3*t; };
export function score(ours: Float32Array, truth: Float32Array, ids: Uint8Array) {
  const mask = Array.from({length:N},(_, i)=>i).filter(i=>ids[i]!==0 && ids[i]!==7 && !(ids[i]>=10&&ids[i]<100));
  const sorted = mask.map(i=>truth[i]).sort((a,b)=>a-b); const white = sorted[Math.floor(.99*sorted.length)];
  const LT = mask.map(i=>Lstar(truth[i]/white));
  const err = (s:number)=> { let e=0; mask.forEach((i,k)=>e+=Math.abs(Lstar(ours[i]*s/white)-LT[k])); return e/mask.length; };
  const med=(z:number[])=>z.sort((a,b)=>a-b)[z.length>>1]; const s0=med(mask.map(i=>truth[i]))/(med(mask.map(i=>ours[i]))+1e-12);
  let best=[1e9,0]; for (let k=-24;k<=24;k++){ const s=2**(k/4)*s0; const e=err(s); if(e<best[0]) best=[e,s]; } for (let k=-3;k<=3;k++){ const s=best[1]*2**(k/16); const e=err(s); if(e<best[0]) best=[e,s]; }
  const s=best[1]; const by: Record<string,[number,number]>={}; mask.forEach((i,k)=>{ const n=ids[i]>=100?'pane':({1:'ground',2:'thing',4:'building',5:'plant',6:'hardware',3:'pane'} as Record<number,string>)[ids[i]]??String(ids[i]); const b=by[n]??=[0,0]; b[0]+=Math.abs(Lstar(ours[i]*s/white)-LT[k]); b[1]++;});
  return { error: best[0], by: Object.fromEntries(Object.entries(by).map(([k,[e,n]])=>[k,+(e/n).toFixed(1)])) };
}
const PLANS = {
 'ferry-steps': { horizon:{left:.51,right:.518}, eyeHeight:1.66, lens:28,
  walls:[{id:'k',name:'kiosk',foot:[{u:-.05,v:.735},{u:.212,v:.7275},{u:.249,v:.681}],height:3.2},{id:'l',name:'left',foot:[{u:-.1,v:.65},{u:.229,v:.556}],height:12},{id:'f',name:'far',foot:[{u:.11,v:.5477},{u:1.2,v:.549}],height:14},{id:'q',name:'quay wall',foot:[{u:.43,v:.5558},{u:.881,v:1.0}],height:0.01}],
  groups:{lamp1:[{at:{u:.5534,v:.266},foot:{u:.552,v:.7465},size:.0116}],lamp2:[{at:{u:.486,v:.3643},foot:{u:.4849,v:.6535},size:.007}],lamp3:[{at:{u:.4554,v:.4088},foot:{u:.4546,v:.6116},size:.0051}]}},
} as const;
for (const [p, plan] of Object.entries(PLANS)) {
  const ids = await truthIds(p);
  const camera: Camera = createCamera(plan as never, 1.5);
  const small = await plateAt(p,400,267), plate = await plateAt(p,width,height);
  const survey = surveyPlate(small, plan.horizon);
  const region = wholeRegion(width,height);
  const relief = Object.fromEntries(RELIEF_PLANES.map(n=>[n,new Float32Array(N)])) as unknown as Relief;
  reliefOf(relief, plate, survey, camera, region);
  const even = {width,height,r:new Float32Array(N),g:new Float32Array(N),b:new Float32Array(N)};
  evenOut(even, plate, shadingOf(small), survey.sky, region, .4, survey.middle);
  const lum = (q: typeof plate)=>Float32Array.from({length:N},(_, i)=>.2126*q.r[i]+.7152*q.g[i]+.0722*q.b[i]);
  // true relief
  const pos = await read(p,'position_world'), nor = await read(p,'normal_world'); const meta=JSON.parse(await readFile(`${TRUTH_ROOT}/${p}/truth/meta.json`,'utf8'));
  console.log(meta.camera_position_world, JSON.stringify(meta.camera_axes_world));
  for (const [g, lamps] of Object.entries(plan.groups)) {
    const T = Y(await read(p,`night_${g}`));
    const base = new Float32Array(N);
    for (const f of lamps) { const {place,radius}=placeFixture(camera,f as never); addPointSpill(base,relief,camera,region,{place,spillCandela:1,airCandela:0,radius}); }
    const pl=lum(plate), pe=lum(even);
    const show=(name:string,e:Float32Array,q=pl)=>{ const r=score(e.map((v,i)=>v*q[i]),T,ids); console.log(g,name.padEnd(24),r.error.toFixed(2),JSON.stringify(r.by)); };
    show('now',base); show('now even',base,pe);
    // walls override
    const pieces = wallPieces(camera, plan.walls as never);
    const rel2 = Object.fromEntries(RELIEF_PLANES.map(n=>[n,(relief as unknown as Record<string,Float32Array>)[n].slice()])) as unknown as Relief;
    for (let i=0;i<N;i++){ const u=(i%width+.5)/width,v=(Math.floor(i/width)+.5)/height; const rx=camera.corner[0]+u*camera.across[0]+v*camera.down[0], ry=camera.corner[1]+u*camera.across[1]+v*camera.down[1], rz=camera.corner[2]+u*camera.across[2]+v*camera.down[2];
      for (const w of pieces){ const ex=w.bx-w.ax,ey=w.by-w.ay; const den=rx*ey-ry*ex; if(Math.abs(den)<1e-9)continue; const t=(w.ax*ey-w.ay*ex)/den; const s=(w.ax*ry-w.ay*rx)/den; const z=camera.eyeHeight+rz*t; if(t>0&&s>=0&&s<=1&&z>=0&&z<=w.height && t<rel2.reach[i]*1.6 + 0) { if (relief.reach[i] < t*.75 && relief.normalZ[i]<.5) continue; if(t> (rz<0?-camera.eyeHeight/rz:1e9)) continue; rel2.reach[i]=t; rel2.normalX[i]=w.normalX; rel2.normalY[i]=w.normalY; rel2.normalZ[i]=0; rel2.unturned[i]=0; } } }
    const wl=new Float32Array(N), shad=new Float32Array(N);
    for (const f of lamps) { const {place,radius}=placeFixture(camera,f as never); const L={place,spillCandela:1,airCandela:0,radius}; addPointSpill(wl,rel2,camera,region,L); const V=new Float32Array(N).fill(1); occlude(V,rel2,camera,region,L,{walls:pieces,standees:[]}); const one=new Float32Array(N); addPointSpill(one,rel2,camera,region,L); for(let i=0;i<N;i++) shad[i]+=one[i]*V[i]; }
    show('walls',wl); show('walls+shadow',shad); show('walls+shadow even',shad,pe);
    // sheen
    for (const [nm,alpha] of [['rough.6',.36]] as const) { const sh=new Float32Array(N); const F0=.04;
      for (const f of lamps) { const {place,radius}=placeFixture(camera,f as never); for(let i=0;i<N;i++){ const u=(i%width+.5)/width,v=(Math.floor(i/width)+.5)/height; const R=[0,1,2].map(c=>camera.corner[c]+u*camera.across[c]+v*camera.down[c]); const t=rel2.reach[i]; const P=[R[0]*t,R[1]*t,R[2]*t+camera.eyeHeight]; const l=[place[0]-P[0],place[1]-P[1],place[2]-P[2]]; const d2=l[0]**2+l[1]**2+l[2]**2+radius**2; const d=Math.sqrt(d2); const lv=l.map(x=>x/d); const rl=Math.hypot(...R); const vv=R.map(x=>-x/rl); const n=[rel2.normalX[i],rel2.normalY[i],rel2.normalZ[i]]; const dot=(a:number[],b:number[])=>a[0]*b[0]+a[1]*b[1]+a[2]*b[2]; const nl=dot(n,lv), nv=Math.max(1e-3,dot(n,vv)); if(nl<=0||ids[i]>=100) continue; const h=lv.map((x,k)=>x+vv[k]); const hl=Math.hypot(...h); const nh=dot(n,h)/hl, vh=dot(vv,h)/hl; const a2=alpha*alpha; const D=a2/(Math.PI*((nh*nh)*(a2-1)+1)**2); const G=1/( (nl+Math.sqrt(a2+(1-a2)*nl*nl))*(nv+Math.sqrt(a2+(1-a2)*nv*nv)) ); const F=F0+(1-F0)*(1-vh)**5; sh[i]+= D*G*F*nl/d2; } }
      const V=new Float32Array(N).fill(1); const f=lamps[0]; const {place,radius}=placeFixture(camera,f as never); occlude(V,rel2,camera,region,{place,spillCandela:1,airCandela:0,radius},{walls:pieces,standees:[]});
      const mid=survey.middle;
      for (const [nm2,q] of [['',pl],['even',pe]] as const) { 
      let r=score(shad.map((v,i)=>q[i]*v*(.18/mid)/Math.PI + sh[i]*V[i]*(1-rel2.unturned[i])),T,ids); console.log(g,('+sheen white '+nm2).padEnd(24),r.error.toFixed(2),JSON.stringify(r.by));
      r=score(shad.map((v,i)=>q[i]*(v*(.18/mid)/Math.PI + sh[i]*V[i]*(1-rel2.unturned[i])/mid)),T,ids); console.log(g,('+sheen as plate '+nm2).padEnd(24),r.error.toFixed(2),JSON.stringify(r.by)); }
    }
  }
}
