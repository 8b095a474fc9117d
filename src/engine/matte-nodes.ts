import type { FoundPass } from '@/core/matte/pass';
import { refineWidth } from '@/core/matte/refine-edge';
import { edgeMargin, withMargin, type EdgeWork } from '@/core/matte/soften';
import { regionKey, wholeRegion, type Region } from '@/core/plane/region';
import type { Matte } from '@/core/scene/schema';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import { matteKey, matteOf, passesKey, surveyKey } from './node-keys';
import type { PlateNodes } from './plate-nodes';
import { surveySize } from './sizes';
import type { ColorLineRefs, FoundRefs, LineRefs, PictureRef, PlaneRef } from './task';

/** Radius of a feather, fraction of the width, from which it is made on the small copy: nothing finer is left in it. */
const WIDE_FEATHER = 0.01;

/** Nodes of mattes: coverage of a region, and what is looked for on small copies. */
export function createMatteNodes(
  { arena, pool, store, assets, inBands, planes }: Graph,
  { plateNode, surveyNode }: PlateNodes,
) {
  async function findNode(request: FrameRequest, pass: FoundPass, signal: AbortSignal): Promise<LineRefs> {
    const { asset } = request.scene.plate;
    const size = surveySize(request.scene.plate);
    const survey = pass.kind === 'shadow' ? (await surveyNode(request, signal)).refs : undefined;
    const key = `find ${asset} ${JSON.stringify({ ...pass, join: undefined })} ${survey ? surveyKey(request) : ''}`;
    const node = await store.node<LineRefs>(
      key,
      async () => {
        const plate = (await plateNode(asset, wholeRegion(size.width, size.height), signal)).refs;
        const count = size.width * size.height;
        return planes({ slope: count, offset: count }, signal, (out) =>
          pool.run({ type: 'find', plate, ...size, pass, survey, out }, signal),
        );
      },
      `find ${pass.id}`,
    );
    return node.refs;
  }

  const brushedNode = async (asset: string, signal: AbortSignal): Promise<PictureRef> => {
    const node = await store.node<PictureRef>(`brushed ${asset}`, async () => {
      const { width, height, data } = await assets.coverage(asset, signal);
      const { blocks, refs } = await planes({ data: data.length }, signal, (out) => {
        const plane = new Float32Array(arena.memory.buffer, out.data, data.length);
        for (let i = 0; i < data.length; i++) plane[i] = data[i] / 255;
        return Promise.resolve();
      });
      return { blocks, refs: { width, height, ...refs } };
    });
    return node.refs;
  };

  /** What a matte's passes cover of a region, one after the other. */
  const passesNode = async (request: FrameRequest, matte: Matte, signal: AbortSignal): Promise<PlaneRef> => {
    const { region, scene } = request;
    const node = await store.node<{ coverage: PlaneRef }>(
      passesKey(request, matte),
      async () => {
        const plate = (await plateNode(scene.plate.asset, region, signal)).refs;
        const found: FoundRefs = {};
        const brushed: Record<string, PictureRef> = {};
        const mattes: Record<string, PlaneRef> = {};
        for (const pass of matte.passes) {
          if (pass.kind === 'area' || pass.kind === 'colour' || pass.kind === 'shadow') {
            found[pass.id] = await findNode(request, pass, signal);
          } else if (pass.kind === 'edge' && pass.asset) {
            brushed[pass.id] = await brushedNode(pass.asset, signal);
          } else if (pass.kind === 'matte') {
            mattes[pass.matte] = await matteNode(request, matteOf(scene, pass.matte), signal);
          } else if (pass.kind === 'sky') {
            const { skySlope, skyOffset } = (await surveyNode(request, signal)).refs;
            found[pass.id] = { slope: skySlope, offset: skyOffset };
          }
        }
        const task = {
          type: 'matte',
          passes: matte.passes,
          plate,
          found,
          foundSize: surveySize(scene.plate),
          brushed,
          mattes,
          region,
        } as const;
        return planes({ coverage: region.width * region.height }, signal, ({ coverage: out }) =>
          inBands(region, signal, (rows) => ({ ...task, rows, out })),
        );
      },
      `passes ${matte.id} ${regionKey(region)}`,
    );
    return node.refs.coverage;
  };

  /** The copy of a plate that a matte's edge is refined on. */
  function refineRegion({ plate }: FrameRequest['scene'], { refine }: Matte): Region {
    const width = refineWidth(refine, plate.width);
    return wholeRegion(width, Math.max(1, Math.round((plate.height * width) / plate.width)));
  }

  /** A matte's passes with their edge led along the plate's. */
  async function refinedNode(request: FrameRequest, matte: Matte, signal: AbortSignal): Promise<PlaneRef> {
    const { scene, region } = request;
    const copy = { ...request, region: refineRegion(scene, matte) };
    const { width, height } = copy.region;
    const lines = await store.node<ColorLineRefs>(
      `edge ${matte.refine} ${passesKey(copy, matte)}`,
      async () => {
        const plate = (await plateNode(scene.plate.asset, copy.region, signal)).refs;
        const coverage = await passesNode(copy, matte, signal);
        const count = width * height;
        const task = { type: 'refine', plate, coverage, region: copy.region, window: matte.refine } as const;
        return planes({ r: count, g: count, b: count, offset: count }, signal, (out) =>
          inBands(copy.region, signal, (rows) => ({ ...task, rows, out })),
        );
      },
      `edge ${matte.id}`,
    );
    const node = await store.node<{ coverage: PlaneRef }>(
      `refined ${matte.refine} ${passesKey(request, matte)}`,
      async () => {
        const plate = (await plateNode(scene.plate.asset, region, signal)).refs;
        const task = {
          type: 'follow',
          lines: lines.refs,
          linesSize: { width, height },
          plate,
          region,
        } as const;
        return planes({ coverage: region.width * region.height }, signal, ({ coverage: out }) =>
          inBands(region, signal, (rows) => ({ ...task, rows, out })),
        );
      },
      `refined ${matte.id} ${regionKey(region)}`,
    );
    return node.refs.coverage;
  }

  /** A matte with its edge moved and softened as far as `work` says, in pixels of the region. */
  const softNode = async (request: FrameRequest, matte: Matte, work: EdgeWork, signal: AbortSignal) => {
    const { region } = request;
    const from = withMargin(region, edgeMargin(work));
    const edge = matte.refine > 0 ? refinedNode : passesNode;
    const coverage = await edge({ ...request, region: from }, matte, signal);
    const task = { type: 'soften', coverage, from, work, invert: matte.invert, region } as const;
    return planes({ coverage: region.width * region.height }, signal, ({ coverage: out }) =>
      inBands(region, signal, (rows) => ({ ...task, rows, out }), 'quick'),
    );
  };

  const workOn = ({ grow, feather }: Matte, { fullWidth }: Region): EdgeWork => ({
    grow: grow * fullWidth,
    feather: (feather * fullWidth) / 2,
  });

  /** Coverage of a request's region by a matte. */
  async function matteNode(request: FrameRequest, matte: Matte, signal: AbortSignal): Promise<PlaneRef> {
    const { region, scene } = request;
    const size = surveySize(scene.plate);
    const small = { ...request, region: wholeRegion(size.width, size.height) };
    const wide = matte.feather >= WIDE_FEATHER && region.fullWidth > size.width;
    const node = await store.node<{ coverage: PlaneRef }>(
      matteKey(request, matte),
      async () => {
        if (!wide) return softNode(request, matte, workOn(matte, region), signal);
        const coverage = await matteNode(small, matte, signal);
        return planes({ coverage: region.width * region.height }, signal, ({ coverage: out }) =>
          inBands(region, signal, (rows) => ({ type: 'enlarge', coverage, size, region, rows, out })),
        );
      },
      `matte ${matte.id} ${regionKey(region)}`,
    );
    return node.refs.coverage;
  }

  return { matteNode };
}

export type MatteNodes = ReturnType<typeof createMatteNodes>;
