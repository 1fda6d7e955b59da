export * from './bind.ts';
export { Inbox } from './inbox.ts';
export { Teller } from './teller.ts';
