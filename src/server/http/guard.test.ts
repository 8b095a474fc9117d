import { expect, it } from 'vitest';
import { guardRequest } from './guard';

const headers = (values: Record<string, string>) => new Headers({ host: '127.0.0.1:4310', ...values });

it.each<Record<string, string>>([
  {},
  { host: 'localhost:4310' },
  { host: '[::1]:4310' },
  { origin: 'http://127.0.0.1:4310' },
  { 'sec-fetch-site': 'same-origin' },
  { 'sec-fetch-site': 'none' },
])('lets this machine and its own pages through: %o', (values) => {
  expect(() => guardRequest(headers(values))).not.toThrow();
});

it.each<Record<string, string>>([
  { host: 'evil.example' },
  { host: '127.0.0.1.evil.example' },
  { host: '192.168.0.5:4310' },
  { host: '' },
  { origin: 'http://evil.example' },
  { origin: 'null' },
  { origin: 'http://127.0.0.1:9999' },
  { origin: 'https://127.0.0.1:4310' },
  { 'sec-fetch-site': 'cross-site' },
  { 'sec-fetch-site': 'same-site' },
])('turns everything else away: %o', (values) => {
  expect(() => guardRequest(headers(values))).toThrow(expect.objectContaining({ status: 403 }) as Error);
});
