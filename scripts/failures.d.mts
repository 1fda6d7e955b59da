export interface Failure {
  name: string;
  lines: string[];
}
export function failedUnits(report: unknown): Failure[];
export function failedScreens(report: unknown): Failure[];
export function toldFailures(failures: readonly Failure[]): string;
