import { api } from '@/state/session/api';
import { ServedImage } from '../controls/served-image';
import classes from './opening.module.css';

/** What is there until the editor is: the scene as it was seen last, where the editor will show it. */
export function Opening({ id }: { id: string }) {
  return (
    <div className={classes.opening} aria-busy="true">
      <div className={classes.header} />
      <div className={classes.worksheet} />
      <main className={classes.picture}>
        <ServedImage src={api.opening(id)} alt="" />
      </main>
      <div className={classes.desk} />
    </div>
  );
}
