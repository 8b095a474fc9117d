import * as opencv from '@techstark/opencv-js';
import { expose } from 'comlink';
import { whenReady, type OpenCv } from './opencv';
import { SegmentService } from './segment-service';

// Bundlers put what the module exports beneath `default`.
const loading = (opencv as { default?: OpenCv }).default ?? opencv;

expose(new SegmentService(whenReady(loading)));
