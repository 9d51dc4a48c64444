/**
 * Who an order is for, in words: one that names nobody is for the shelf.
 * @example forWhom('') // 'the shelf'
 */
export const forWhom = (customer: string): string => customer || 'the shelf';
