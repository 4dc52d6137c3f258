import { isDiskFull } from './archive/disk-full';

/** Sediment cannot start on this folder as it is: what is wrong, what is safe, what to do, in words for a terminal. */
export class StartRefused extends Error {
  override readonly name = 'StartRefused';
}

/** What the system says of a folder that cannot be used, in words; null for any other error. */
export function folderProblem(error: unknown, folder: string): StartRefused | null {
  if (isDiskFull(error))
    return new StartRefused(
      `There is no space left for the data folder ${folder}. What was stored is untouched. Free at least 64 MB there, then start again.`,
    );
  switch ((error as NodeJS.ErrnoException | null)?.code) {
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
      return new StartRefused(
        `The data folder ${folder} cannot be written to. Nothing was changed. Give this user the right to write there, or set SEDIMENT_DATA to another folder.`,
      );
    case 'ENOTDIR':
    case 'EEXIST':
      return new StartRefused(
        `${folder} is not a folder, or one in it is a file. Nothing was changed. Set SEDIMENT_DATA to a folder.`,
      );
    default:
      return null;
  }
}
