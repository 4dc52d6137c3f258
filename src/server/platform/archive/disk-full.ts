/** Full or over quota, as the system says it; and as PostgreSQL does (53100, appendix A of its manual). */
const CODES: readonly unknown[] = ['ENOSPC', 'EDQUOT', '53100'];

/** Whether an error says that there is no space left on the disk. */
export const isDiskFull = (error: unknown): boolean => CODES.includes((error as { code?: unknown } | null)?.code);
