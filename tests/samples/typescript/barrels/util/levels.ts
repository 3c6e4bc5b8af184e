export interface Key {
  readonly code: string;
  readonly n: number;
}
export interface IStore {
  set(key: string): void;
}
