export * from './attempts.ts';
export * from './people.ts';
export * from './password.ts';
