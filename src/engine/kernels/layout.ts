import { LUMINANCE } from '@/core/color/luminance';
import { MIDDLE_GREY } from '@/core/color/middle-grey';
import { GRADE_STEPS, GRADE_TABLES, TONE_STEPS } from '@/core/grade/grade';
import { BLACK, LIFT } from '@/core/day/even-out';
import { FARTHEST_GROUND } from '@/core/geometry/ground';
import { VEIL } from '@/core/matte/refine-edge';
import { STEEP_FROM, STEEP_TO } from '@/core/plane/steepen';
import { ACROSS, SPIKE_STRIDE, STEPS } from '@/core/lens/add-spikes';
import { SECOND_GRAIN } from '@/core/lens/grain';
import { LEAST } from '@/core/mirror/add-mirrors';
import { GRAZING as MIRROR_GRAZING, OVERLAP, SHARES, TAP } from '@/core/mirror/mirror-image';
import { GRAZING } from '@/core/light/add-point-spill';
import { ENDS, NEAR_STANDEE, ON_WALL, SHARPEST } from '@/core/light/occlusion';
import { FACED_ASIDE } from '@/core/light/faced-by';
import { OWN_SHEEN } from '@/core/light/own-sheen';
import { CUTOFF_SOFT, NO_CUTOFF } from '@/core/light/point-light';
import { SOFT_LEVELS } from '@/core/light/soft-coverage';
import { STEEPEST } from '@/core/relief/ripple';
import { HAZE } from '@/core/relief/haze-length';
import { CLOUD_KEEPS, CLOUD_TAKES, FORWARD, UNDER } from '@/core/sky/behind-skyline';
import { ALL_LAND, CLOUD, OWN, TOWN_ON_CLOUDS } from '@/core/sky/sky-light';
import { SKY_TONES } from '@/core/sky/sky-tones';
import { LAND_NUMBERS } from './land-numbers';

/*
 * What kernels and the code that calls them both know: told here, and written out for the kernels when they are built
 * (`kernels/generated.ts`).
 */

const FLOAT = 4;

/** Numbers of the core, as 32-bit floats. */
export const KERNEL_NUMBERS = {
  LUMINANCE_R: LUMINANCE[0],
  LUMINANCE_G: LUMINANCE[1],
  LUMINANCE_B: LUMINANCE[2],
  PER_CUTOFF_SOFT: 1 / CUTOFF_SOFT,
  /** To eight digits, as it always was: a picture that was made once is made again to the byte. */
  PER_MIDDLE_GREY: Number((1 / MIDDLE_GREY).toPrecision(8)),
  OWN_SHEEN_A2: OWN_SHEEN.alpha ** 2,
  FACED_ASIDE_SHARE: FACED_ASIDE,
  GRAZING_COSINE: GRAZING,
  SHADOW_ENDS: ENDS,
  ON_WALL,
  SHARPEST_EDGE: SHARPEST,
  NEAR_STANDEE,
  NO_CUTOFF_SINE: NO_CUTOFF,
  LAST_SOFT_LEVEL: SOFT_LEVELS - 1,
  SPIKE_ACROSS: ACROSS,
  SKY_ALL_LAND: ALL_LAND,
  FARTHEST_GROUND,
  STEEPEST_RIPPLE: STEEPEST,
  HAZE_TOP: HAZE.top,
  HAZE_FARTHEST: HAZE.farthest,
  FORWARD_HAZE: FORWARD.haze,
  FORWARD_CLOUD: FORWARD.cloud,
  UNDER_LOW: UNDER.low,
  UNDER_REACH: UNDER.reach,
  CLOUD_TAKES,
  CLOUD_KEEPS,
  CLOUD_BRIGHT: CLOUD.bright,
  CLOUD_THICK: CLOUD.thick,
  CLOUD_OWN: CLOUD.own,
  TOWN_LIGHT: TOWN_ON_CLOUDS.light,
  TOWN_THIN: TOWN_ON_CLOUDS.thin,
  OWN_LEAST: OWN.least,
  OWN_MOST: OWN.most,
  EVEN_BLACK: BLACK,
  EVEN_LIFT: LIFT,
  MIRROR_F0: OWN_SHEEN.f0,
  MIRROR_LEAST: LEAST,
  MIRROR_GRAZING,
  MIRROR_OVERLAP: OVERLAP,
  MIRROR_TAP: TAP,
  MIRROR_SHARE_FAR: SHARES[0],
  MIRROR_SHARE_NEAR: SHARES[1],
  MIRROR_SHARE_MIDDLE: SHARES[2],
  EDGE_VEIL: VEIL.from,
  PER_EDGE_VEIL: 1 / (VEIL.to - VEIL.from),
  STEEP_FROM,
  STEEP_TO,
  ...LAND_NUMBERS,
} as const;

/** Columns of a region for which small pictures are drawn out at a time. */
const PART = 2048;

/** Steps of tables, and other numbers of things. */
export const KERNEL_COUNTS = { GRADE_STEPS, TONE_STEPS, SPIKE_STEPS: STEPS, SECOND_GRAIN, PART } as const;

/** A layer: planes of spill, air (or 0) and source; first and last + 1 row of the source plane; what shines, or 0; twelve weights. */
export const LAYER = {
  SPILL: 0,
  AIR: 4,
  SOURCE: 8,
  SOURCE_FROM: 12,
  SOURCE_TO: 16,
  SHINE: 20,
  SPILL_WEIGHTS: 24,
  AIR_WEIGHTS: 36,
  SOURCE_WEIGHTS: 48,
  SHINE_WEIGHTS: 60,
  BYTES: 72,
} as const;

/** Parameters of the night's base: those of the ambient light first, then those of a grade. */
export const NIGHT_PARAMS = {
  DARKEST: 48,
  ON_LUMINANCE: 52,
  TONE_STRENGTH: 56,
  LOW: 60,
  STRETCH: 64,
  KNEE: 68,
  BEND: 72,
  LUT_STRENGTH: 76,
  LUT_DIMENSIONS: 80,
  LUT_SIZE: 84,
  LUT_MIN: 88,
  LUT_SPAN: 100,
} as const;

/** Tables of a grade. */
export const TABLES = {
  ENCODE: FLOAT * GRADE_TABLES.encode,
  DECODE: FLOAT * GRADE_TABLES.decode,
  BY_TONE: FLOAT * GRADE_TABLES.byTone,
} as const;

/** A light: see `kernels/point-light.ts`. */
export const LIGHT = {
  RADIUS: 24,
  FACES: 28,
  EVEN: 40,
  FOCUS: 44,
  CUTOFF: 48,
  TURNED: 52,
  BEAM: 56,
  CLEAR: 60,
  SEEN_X: 64,
  SEEN_Y: 68,
  BYTES: 80,
} as const;

/** What is lit, a region or a lattice over a tile: where each plane begins. */
export const LIT = {
  SPILL: 0,
  AIR: 4,
  SHINE: 8,
  REACH: 12,
  NORMAL_X: 16,
  NORMAL_Y: 20,
  NORMAL_Z: 24,
  UNKNOWN_FACING: 28,
  LAND: 32,
  SHEEN: 36,
  ALPHA: 40,
  BYTES: 48,
} as const;

/** What casts shadows: see `kernels/occlusion.ts`. Its head, then walls, decks with their corners, standees, ends of walls. */
export const OCCLUDER = {
  SIGHT: 16,
  HEAD_BYTES: 64,
  WALL_BYTES: 48,
  WALL_SIDE: 24,
  WALL_END: 28,
  WALL_SIDE_LEAST: 32,
  WALL_SIDE_MOST: 36,
  DECK_BYTES: 16,
  CORNER_BYTES: 32,
  STANDEE_BYTES: 48,
} as const;

/** A tile: see `kernels/tile.ts`. `LIST`: where what casts shadows on it is listed, behind its counts. */
export const TILE = {
  ...{ WIDTH: 64, HEIGHT: 16, UNKNOWN_FACING: 24, NORMALS: 32, PLANE: 56 },
  ...{ FACES: 64, FACES_LEAST: 76, FACES_MOST: 80, RAYS: 96, LIST: 16 },
} as const;

/** Bytes of a tile's scratch: its head, and five planes. */
export const TILE_BYTES = TILE.RAYS + 5 * FLOAT * TILE.WIDTH * TILE.HEIGHT;

/** Bytes of a lattice over a tile, at most: see `kernels/lattice.ts`. */
export const LATTICE_BYTES = 128 + 9 * FLOAT * 24 * 6 + TILE_BYTES;

/**
 * What the sky behind the skyline is weighed with: view rays; ambient light on land, light of a cd/m2; lamps' light on clouds; colour of
 * the mist and how much of it a metre is; toward the moon, its light, and how much of it haze gives on.
 */
export const SKY = {
  ...{ WEIGHTS: 36, UNDER: 44, MIST: 56, PER_METRE: 68, MOON: 72, LIGHT: 84, HAZE: 96 },
} as const;

/**
 * What ground is laid with. In 64 bits: rays, height of the first row and from one to the next as fractions of the plate's. Then how a step
 * down the plate leads ahead and up, height of the eye, and roughness, sheen and crease of the ground, and of water.
 */
export const GROUND = {
  ...{ TOP: 72, DOWN: 88, EYE: 96, ROUGHNESS: 100, SHEEN: 104, CREASE: 108, WATER: 112 },
} as const;

/**
 * A small picture that is looked at between its pixels: where its data and how large it is, the row whose line is drawn, where the region
 * lies on it (its first pixel, and the way from one to the next), its two lines, and how far between them; bytes of a line.
 */
export const SMALL = {
  ...{ WIDE: 4, HIGH: 8, HELD: 12, PLACE: 16, UPPER: 32, LOWER: 36, DOWN: 40, BYTES: 48 },
  LINE: FLOAT * PART + 16,
} as const;

/** Small pictures that a skyline is read from, in the order of `toldPlanes`: where those of a kind begin. */
export const TOLD = {
  ...{ SKY: SKY_TONES.indexOf('skyR'), LAND: SKY_TONES.indexOf('landR') },
  ...{ WITHIN_SKY: SKY_TONES.indexOf('withinSky'), WITHIN_LAND: SKY_TONES.indexOf('withinLand') },
  ...{ NEAR_SKY: SKY_TONES.indexOf('nearSky'), FLOOR: SKY_TONES.indexOf('floor') },
  ...{ EVEN: SKY_TONES.indexOf('even'), LEAVES: SKY_TONES.indexOf('leaves') },
  ...{ SLOPE: SKY_TONES.length, OFFSET: SKY_TONES.length + 1, COUNT: SKY_TONES.length + 2 },
} as const;

/** Bytes of the lines of so many small pictures. */
export const linesOf = (smalls: number) => smalls * 2 * SMALL.LINE;

/** A spike of the lens. */
export const SPIKE = { BYTES: FLOAT * SPIKE_STRIDE } as const;

/** Everything that kernels are told as byte offsets and lengths, by the name of its table. */
export const KERNEL_LAYOUT = {
  LAYER,
  NIGHT_PARAMS,
  TABLES,
  LIGHT,
  LIT,
  OCCLUDER,
  TILE,
  SKY,
  GROUND,
  SMALL,
  TOLD,
  SPIKE,
} as const;
