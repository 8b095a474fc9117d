import { expose } from 'comlink';
import { createPerformerService } from './performer-service';

expose(createPerformerService());
