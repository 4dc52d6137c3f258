/** Letters and digits that are not taken for one another: Crockford's base 32. */
export const CROCKFORD = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
