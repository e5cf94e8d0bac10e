/** What keeps data from being kept, by the codes of the database and of the system. */
const SENTENCES: readonly [codes: RegExp, sentence: string][] = [
  [
    /^(SQLITE_FULL|ENOSPC|EDQUOT)/,
    'The disk is full, so nothing more can be kept. Make room and try again; what was kept before is safe.',
  ],
  [
    /^(SQLITE_BUSY|SQLITE_LOCKED)/,
    'The data are locked by another program, such as a backup or a browser of databases. Wait until it is done, or close it, and try again.',
  ],
  [
    /^(SQLITE_READONLY|SQLITE_PERM|EROFS|EACCES|EPERM)/,
    'The data cannot be written: the disk is read-only, or this user has no right to write there.',
  ],
  [
    /^(SQLITE_CORRUPT|SQLITE_NOTADB)/,
    'The file of the data is damaged, or is no database. Put it aside and bring back a copy of it.',
  ],
  [
    /^FILE_GONE/,
    'The folder of the data was taken away while the program runs, so nothing more can be kept. Put it back as it was, and go on.',
  ],
  [/^(ENOTDIR|EEXIST)/, 'Where the folder of the data should be, there is a file.'],
  [/^SQLITE_CANTOPEN/, 'The file of the data cannot be opened. See whether its folder is there and may be written.'],
  [/^SQLITE_IOERR/, 'The disk does not answer as it should. See whether the folder of the data is still there.'],
];

/** Why data cannot be kept or read, as a sentence; `null` where an error is none of these. */
export function troubleOf(error: unknown): string | null {
  const { code, message = '' } = (error ?? {}) as { code?: unknown; message?: string };
  if (/previously executed migration .* is missing/.test(message)) {
    return 'The data were written by a newer version of the program. Start that version, or bring back an older copy of the data.';
  }
  return SENTENCES.find(([codes]) => codes.test(String(code)))?.[1] ?? null;
}

/** An error that is told to whoever starts the program, and ends it. */
export class StartError extends Error {}

/** How writing goes: what is wrong now, in a sentence; `null` while all that is written is kept. */
export class Trouble {
  now: string | null = null;

  /** Notes how a try to write went. @param error `null` where it went well */
  note(error: unknown): void {
    if (error === null) this.now = null;
    else this.now = troubleOf(error) ?? this.now;
  }
}
