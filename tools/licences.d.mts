export interface ShippedPackage {
  readonly name: string;
  readonly version: string;
  readonly licence: string;
}
export function shippedPackages(): ShippedPackage[];
export function isPermissive(licence: string): boolean;
export function licenceTable(): string;
