/** A picture in which so many instants stand side by side, and that at which it rests, from 0. */
export interface Strip {
  readonly address: string;
  readonly instants: number;
  readonly rest: number;
}
