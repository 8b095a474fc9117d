import Link from 'next/link';
import classes from './editor.module.css';

/** The name with its mark: a drop on a stalk. */
export function Logo() {
  return (
    <Link href="/" className={classes.logo} aria-label="Sundew: all scenes">
      <svg viewBox="0 0 32 32" aria-hidden>
        <path d="M16 30V15" stroke="#e0526f" strokeWidth="3" strokeLinecap="round" />
        <circle cx="16" cy="9" r="7" fill="#f2b25c" />
        <circle cx="13.6" cy="6.6" r="2" fill="#fff6e4" />
      </svg>
      sundew
    </Link>
  );
}
