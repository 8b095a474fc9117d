import { burns } from '../picture/layers';
import type { Scene } from '../scene/schema';
import type { OutputFacts } from './output-formats';

/** What a photo's file says of itself, as far as it goes along with the night that was made of it. */
export interface PhotoFacts {
  make?: string;
  model?: string;
  lens?: string;
  artist?: string;
  copyright?: string;
  /** When it was taken, by the camera's own clock: `2026-01-31T18:05:00`. */
  taken?: string;
  /** Seconds. */
  exposureTime?: number;
  fNumber?: number;
  iso?: number;
  /** Millimetres. */
  focalLength?: number;
  /** Degrees, north and east above 0. */
  place?: { latitude: number; longitude: number };
}

/** What a finished picture says of itself. */
export interface ToldFacts extends PhotoFacts {
  title: string;
  /** What was lit. */
  description: string;
}

/** What burns in a scene, circuit by circuit: "Lit: Quay (2), Lantern (1)." */
export function litWords(scene: Scene): string {
  const lit = scene.circuits
    .filter((circuit) => burns(circuit, scene))
    .map(({ id, name }) => [name, scene.fixtures.filter(({ circuit }) => circuit === id).length] as const)
    .filter(([, count]) => count > 0);
  if (lit.length === 0) return 'A night without lamps.';
  return `Lit: ${lit.map(([name, count]) => `${name} (${count})`).join(', ')}.`;
}

/** All that a finished picture is to say of itself; undefined where it is to say nothing. */
export function toldFacts(scene: Scene, photo: PhotoFacts, wish: OutputFacts): ToldFacts | undefined {
  if (wish === 'none') return undefined;
  const { place, ...rest } = photo;
  return { ...rest, ...(wish === 'all' && { place }), title: scene.title, description: litWords(scene) };
}

/** A number as Exif's fraction. */
const fraction = (value: number): string =>
  value > 0 && value < 0.5 ? `1/${Math.round(1 / value)}` : `${Math.round(100 * value)}/100`;

/** Degrees as Exif's three fractions: degrees, minutes, seconds. */
function angle(degrees: number): string {
  const seconds = Math.round(360000 * Math.abs(degrees));
  const [whole, minutes] = [Math.floor(seconds / 360000), Math.floor((seconds % 360000) / 6000)];
  return `${whole}/1 ${minutes}/1 ${seconds % 6000}/100`;
}

/** Exif text is plain ASCII; what has other letters is told in XMP alone. */
const plain = (text: string | undefined) => (text && /^[\x20-\x7e]+$/.test(text) ? text : undefined);

type Tags = Record<string, string>;

/** The tags that have a value. */
const given = (tags: Record<string, string | 0 | undefined>): Tags =>
  Object.fromEntries(Object.entries(tags).filter((tag): tag is [string, string] => !!tag[1]));

/** Facts as Exif tags by directory (CIPA DC-008, Exif 2.32): values as text, fractions as `1/60`. */
export function exifOf(facts: ToldFacts): { IFD0: Tags; IFD2: Tags; IFD3: Tags } {
  const { taken, exposureTime, fNumber, iso, focalLength, place } = facts;
  return {
    IFD0: given({
      ImageDescription: plain(facts.description),
      Make: plain(facts.make),
      Model: plain(facts.model),
      Artist: plain(facts.artist),
      Copyright: plain(facts.copyright),
      Software: 'Sundew',
    }),
    IFD2: given({
      DateTimeOriginal: taken?.replace('T', ' ').replaceAll('-', ':'),
      ExposureTime: exposureTime && fraction(exposureTime),
      FNumber: fNumber && fraction(fNumber),
      ISOSpeedRatings: iso && String(Math.round(iso)),
      FocalLength: focalLength && fraction(focalLength),
      LensModel: plain(facts.lens),
    }),
    IFD3: place
      ? {
          GPSLatitudeRef: place.latitude < 0 ? 'S' : 'N',
          GPSLatitude: angle(place.latitude),
          GPSLongitudeRef: place.longitude < 0 ? 'W' : 'E',
          GPSLongitude: angle(place.longitude),
        }
      : {},
  };
}

/** Characters that XML 1.0 does not hold, however they are written. */

const UNWRITABLE = /[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]/g;

const escaped = (text: string): string =>
  text
    .replace(UNWRITABLE, '')
    .replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;' })[sign] ?? '&quot;');

/** Degrees as XMP writes them: degrees and minutes, then the side. */
function side(degrees: number, above: string, below: string): string {
  const whole = Math.floor(Math.abs(degrees));
  return `${whole},${(60 * (Math.abs(degrees) - whole)).toFixed(5)}${degrees < 0 ? below : above}`;
}

/** Facts as an XMP packet (ISO 16684-1), in any letters. */
export function xmpOf(facts: ToldFacts): string {
  const { place } = facts;
  const plainTags = given({
    'xmp:CreatorTool': 'Sundew',
    'tiff:Make': facts.make,
    'tiff:Model': facts.model,
    'aux:Lens': facts.lens,
    'exif:DateTimeOriginal': facts.taken,
    'exif:ExposureTime': facts.exposureTime && fraction(facts.exposureTime),
    'exif:FNumber': facts.fNumber && fraction(facts.fNumber),
    'exif:FocalLength': facts.focalLength && fraction(facts.focalLength),
    'exif:GPSLatitude': place && side(place.latitude, 'N', 'S'),
    'exif:GPSLongitude': place && side(place.longitude, 'E', 'W'),
  });
  const language = (tag: string, text: string | undefined) =>
    text ? `<${tag}><rdf:Alt><rdf:li xml:lang="x-default">${escaped(text)}</rdf:li></rdf:Alt></${tag}>` : '';
  const creator = facts.artist
    ? `<dc:creator><rdf:Seq><rdf:li>${escaped(facts.artist)}</rdf:li></rdf:Seq></dc:creator>`
    : '';
  const spaces = [
    ['dc', 'http://purl.org/dc/elements/1.1/'],
    ['xmp', 'http://ns.adobe.com/xap/1.0/'],
    ['tiff', 'http://ns.adobe.com/tiff/1.0/'],
    ['exif', 'http://ns.adobe.com/exif/1.0/'],
    ['aux', 'http://ns.adobe.com/exif/1.0/aux/'],
  ];
  return [
    '<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>',
    '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">',
    `<rdf:Description rdf:about="" ${spaces.map(([name, at]) => `xmlns:${name}="${at}"`).join(' ')}`,
    ...Object.entries(plainTags).map(([tag, value]) => ` ${tag}="${escaped(value)}"`),
    `>${language('dc:title', facts.title)}${language('dc:description', facts.description)}${creator}`,
    `${language('dc:rights', facts.copyright)}</rdf:Description></rdf:RDF></x:xmpmeta>`,
    '<?xpacket end="w"?>',
  ].join('\n');
}
